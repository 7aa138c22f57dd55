import { render } from '@testing-library/svelte';
import type { Component } from 'svelte';
import { RigBench } from '$lib/bench/bench.svelte';
import { reference } from '$lib/bench/reference.svelte';
import { catalog } from './catalog';
import { serve } from './fake';
import WithBench from './WithBench.svelte';

/** Render a component with a rig on the bench and a stand-in server behind it. */
export async function onBench<Props extends Record<string, unknown>>(
	of: Component<Props>,
	props?: Props,
	with_: { bench?: Record<string, unknown>; answers?: Record<string, unknown> } = {}
) {
	reference.catalog = catalog;
	reference.units = {};
	const server = serve();
	Object.assign(server.bench, with_.bench);
	Object.assign(server.answers, with_.answers);
	const bench = await RigBench.open(1);
	server.asked.length = 0;
	const given = { bench, of: of as unknown as Component<Record<string, unknown>>, given: props };
	const view = render(WithBench, { props: given });
	return { ...view, server, bench };
}
