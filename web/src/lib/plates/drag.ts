/** Let a hand drag along a drawing: calls back with the pointer's place in the drawing's pixels. */
export function drag(
	node: SVGElement,
	moved: (x: number, y: number) => void
): { update(next: (x: number, y: number) => void): void; destroy(): void } {
	let tell = moved;
	const svg = node.ownerSVGElement as SVGSVGElement;
	let held = false;

	function place(event: PointerEvent): void {
		const box = svg.getBoundingClientRect();
		const scale = svg.viewBox.baseVal.width / box.width;
		tell((event.clientX - box.left) * scale, (event.clientY - box.top) * scale);
	}
	function down(event: PointerEvent): void {
		held = true;
		node.setPointerCapture(event.pointerId);
		place(event);
	}
	function move(event: PointerEvent): void {
		if (held) place(event);
	}
	function up(): void {
		held = false;
	}
	node.style.touchAction = 'none';
	node.addEventListener('pointerdown', down);
	node.addEventListener('pointermove', move);
	node.addEventListener('pointerup', up);
	node.addEventListener('pointercancel', up);
	return {
		update: (next) => (tell = next),
		destroy: () => {
			node.removeEventListener('pointerdown', down);
			node.removeEventListener('pointermove', move);
			node.removeEventListener('pointerup', up);
			node.removeEventListener('pointercancel', up);
		}
	};
}
