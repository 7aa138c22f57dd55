<script lang="ts">
	import { curveCatmullRom, line } from 'd3-shape';
	import type { Schemas } from '$lib/api/client';
	import { path, type Frame, type Point } from './frame';

	/** The bow in one pose, to scale: limbs, riser with its grip, string. */
	interface Props {
		pose: Schemas['Pose'];
		at: Frame;
		ghost?: boolean;
		riser?: boolean;
		string?: 'ink' | 'accent';
	}
	let { pose, at, ghost = false, riser = true, string = 'ink' }: Props = $props();

	const upper = $derived(pose.upper_limb as Point[]);
	const body = $derived(outline(pose.riser_belly as Point[], pose.riser_back as Point[]));

	function outline(belly: Point[], back: Point[]): string {
		const curve = line<Point>(
			(p) => at.x(p[0]!),
			(p) => at.y(p[1]!)
		).curve(curveCatmullRom);
		return `${curve(belly)}${(curve(back) ?? '').replace('M', 'L')}Z`;
	}
</script>

<g>
	{#if ghost}
		<path d={path(upper, at, true)} fill="var(--ghost)" opacity="0.55" />
		<path d={path(pose.lower_limb as Point[], at, true)} fill="var(--ghost)" opacity="0.55" />
		<path
			d={path(pose.string as Point[], at)}
			fill="none"
			stroke="var(--ghost)"
			stroke-width="1.2"
		/>
	{:else}
		{#if riser}
			<path
				d={body}
				fill="url(#wood)"
				stroke="var(--ink)"
				stroke-width="1.3"
				stroke-linejoin="round"
			/>
		{/if}
		<path d={path(upper, at, true)} fill="var(--ink)" />
		<path d={path(pose.lower_limb as Point[], at, true)} fill="var(--ink)" />
		<path
			d={path(pose.string as Point[], at)}
			fill="none"
			stroke={string === 'accent' ? 'var(--heather)' : 'var(--ink)'}
			stroke-width={string === 'accent' ? 1.8 : 1.2}
			stroke-linejoin="round"
		/>
	{/if}
</g>
