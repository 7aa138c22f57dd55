<script lang="ts">
	import type { Schemas } from '$lib/api/client';
	import { upload } from '$lib/api/upload';
	import { asAiming } from '$lib/bench/aiming.svelte';
	import { useBench } from '$lib/bench/bench.svelte';
	import CourseTable from './CourseTable.svelte';
	import FilePick from './FilePick.svelte';

	/** Courses of the archer's own: their targets, and what to aim at each. */
	type Course = Schemas['Course'];
	const MOST = 12;
	const bench = useBench();
	const asked = asAiming(bench);
	const courses = $derived((bench().value('courses') as Course[] | null) ?? []);
	let chosen = $state(0);
	const at = $derived(Math.min(chosen, courses.length - 1));
	const course = $derived(courses[at]);
	const refused = $derived(bench().problem('courses'));
	/** Nothing is told of a course that cannot be taken as it is typed. */
	const lines = $derived(refused ? [] : (asked.told?.round_cards[at] ?? []));
	let fault = $state('');

	function put(changed: Course[]): void {
		bench().set('courses', $state.snapshot(changed));
	}
	function add(more: Course): void {
		put([...courses, more]);
		chosen = courses.length - 1;
	}
	const target = () => ({ name: '', distance_m: 20, slope_deg: 0, spot_half_height_cm: 5 });
	const change = (to: Partial<Course>) =>
		put(courses.map((c, i) => (i === at ? { ...c, ...to } : c)));
	async function take(file: File): Promise<void> {
		fault = '';
		try {
			const read = await upload<Course>('/api/courses', file);
			const named = file.name.endsWith('.json');
			add({
				...read,
				name: (named && read.name) || file.name.replace(/\.[^.]*$/, '').slice(0, 80) || read.name
			});
		} catch (error) {
			fault = (error as Error).message;
		}
	}
	const paper = (kind: string) =>
		`/api/rigs/${bench().id}/card?card=course&course=${at}&kind=${kind}`;
</script>

{#if course}
	<p class="line">
		{#if courses.length > 1}
			<select
				class="line-input"
				value={at}
				onchange={(e) => (chosen = Number(e.currentTarget.value))}
				aria-label="Which course"
			>
				{#each courses as c, i (i)}<option value={i}>{c.name}</option>{/each}
			</select>
		{/if}
		<label
			>Course <input
				class="line-input"
				value={course.name}
				maxlength="80"
				onchange={(e) => e.currentTarget.value.trim() && change({ name: e.currentTarget.value })}
			/></label
		>
		<button type="button" class="link" onclick={() => put(courses.filter((_, i) => i !== at))}
			>Take this course out</button
		>
	</p>
	<CourseTable targets={course.targets ?? []} {lines} onset={(targets) => change({ targets })} />
	<p class="line">
		<button
			type="button"
			class="link"
			disabled={(course.targets ?? []).length >= 60}
			onclick={() => change({ targets: [...(course.targets ?? []), target()] })}
			>Add a target</button
		>
		{#if bench().isChanged('courses')}
			<span class="quiet">Keep the course, and its card can be printed.</span>
		{:else}
			<a class="link" href={paper('pdf')}>Round card, PDF</a>
			<a class="link" href={paper('svg')}>SVG</a>
			<a class="link" href="/api/rigs/{bench().id}/course.csv?course={at}">Course as CSV</a>
			<a class="link" href="/api/rigs/{bench().id}/course?course={at}" download="course.json"
				>as JSON</a
			>
		{/if}
	</p>
{:else}
	<p>
		A course that you shoot again: its targets with distance, slope and spot. It becomes a round
		card with the crawl or the gap for each.
	</p>
{/if}
{#if refused || fault || asked.problem}
	<p class="wrong" role="alert">{fault || refused || asked.problem}</p>
{/if}
<p class="line">
	<button
		type="button"
		class={course ? 'link' : 'act'}
		disabled={courses.length >= MOST}
		onclick={() => add({ name: `Course ${courses.length + 1}`, targets: [target()] })}
		>A new course</button
	>
	<FilePick
		text="From a file"
		label="Course as CSV or JSON"
		accept=".csv,.json,text/csv,text/plain,application/json"
		disabled={courses.length >= MOST}
		onfile={(file) => void take(file)}
	/>
	<span class="quiet">distance (m), slope (deg), spot (cm): a target a line</span>
</p>

<style>
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 1.2rem;
		align-items: baseline;
		margin: 0.6rem 0;
	}
	.line .link {
		padding-block: 3px;
	}
	select {
		width: 12rem;
	}
	.wrong {
		color: var(--brick);
	}
</style>
