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

	/** The grip lies a hand below the arrow; the pivot's X is the model's, its height a drawing's. */
	const grip = $derived(Math.min(1.7, (pose.upper_limb[0]?.[1] ?? 8) * 0.2));
	const upper = $derived(pose.upper_limb as Point[]);
	const root = $derived(upper[0] as [number, number]);
	const back = $derived(upper[upper.length - 1] as [number, number]);
	const body = $derived(outline(root, back));

	function outline(root: [number, number], back: [number, number]): string {
		const [rx, ry] = root;
		const bx = back[0];
		const belly: Point[] = [
			[rx, ry],
			[rx * 0.5 + 0.35, ry * 0.62],
			[0.55, Math.min(1.2, ry * 0.3)],
			[0.12, 0.1],
			[0, -grip],
			[0.45, -Math.min(grip + 1.9, ry * 0.56)],
			[rx * 0.5 + 0.35, -ry * 0.76],
			[rx, -ry]
		];
		const front: Point[] = [
			[bx, -ry],
			[-1.45, -ry * 0.6],
			[-1.75, -grip],
			[-1.35, 0.2],
			[-1.55, ry * 0.5],
			[bx, ry]
		];
		const curve = line<Point>(
			(p) => at.x(p[0]!),
			(p) => at.y(p[1]!)
		).curve(curveCatmullRom);
		return `${curve(belly)}${(curve(front) ?? '').replace('M', 'L')}Z`;
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
