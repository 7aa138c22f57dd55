import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { RigBench } from '$lib/bench/bench.svelte';
import { reference } from '$lib/bench/reference.svelte';
import { catalog } from '$lib/tests/catalog';
import { serve } from '$lib/tests/fake';
import { drag } from './drag';

afterEach(() => vi.unstubAllGlobals());

describe('dragging along a drawing', () => {
	let node: SVGElement;
	const moved = vi.fn();

	function send(type: string, clientX: number, clientY: number) {
		node.dispatchEvent(new MouseEvent(type, { clientX, clientY }));
	}

	beforeEach(() => {
		moved.mockClear();
		document.body.innerHTML = '<svg><circle /></svg>';
		const svg = document.querySelector('svg') as SVGSVGElement;
		node = document.querySelector('circle') as SVGElement;
		// The drawing is shown at half its size, and begins at 100, 50.
		svg.getBoundingClientRect = () => new DOMRect(100, 50, 300, 200);
		Object.defineProperty(svg, 'viewBox', { value: { baseVal: { width: 600 } } });
		node.setPointerCapture = vi.fn();
	});

	it('tells the place in the drawing’s own pixels while held', () => {
		drag(node, moved);
		send('pointermove', 120, 60);
		expect(moved).not.toHaveBeenCalled();
		send('pointerdown', 110, 55);
		send('pointermove', 200, 100);
		send('pointerup', 200, 100);
		send('pointermove', 250, 100);
		expect(moved.mock.calls).toEqual([
			[20, 10],
			[200, 100]
		]);
	});

	it('follows its listener and lets go of it', () => {
		const later = vi.fn();
		const action = drag(node, moved);
		action.update(later);
		send('pointerdown', 110, 55);
		expect(later).toHaveBeenCalledOnce();
		action.destroy();
		send('pointermove', 200, 100);
		expect(later).toHaveBeenCalledOnce();
		expect(moved).not.toHaveBeenCalled();
	});
});

describe('what is dragged', () => {
	it('goes to steps and stays within the field’s own range', async () => {
		reference.catalog = catalog;
		serve();
		const bench = await RigBench.open(1);
		const path = 'archer.draw_length_in';
		bench.drag(path, 28.93, 0.125);
		expect(bench.value(path)).toBe(28.875);
		bench.drag(path, 99, 0.125);
		expect(bench.value(path)).toBe(34);
		bench.drag(path, -5, 0.125);
		expect(bench.value(path)).toBe(18);
	});
});
