import { api, told, type Schemas } from '$lib/api/client';
import type { RigBench, TrialOf } from './bench.svelte';
import { latest } from './latest';

export type ClipTold = Schemas['ClipView'];
interface Px {
	x: number;
	y: number;
}
interface Marks {
	nock?: Px;
	point?: Px;
}
const REAL = { width: 1280, height: 720 };

/** A slow-motion clip stepped frame by frame: an own video or the simulated camera's frames. */
export class Clip {
	/** An own clip's address, or the frames of the simulated camera. */
	src = $state('');
	film = $state.raw<Schemas['FilmView'] | null>(null);
	width = $state(REAL.width);
	height = $state(REAL.height);
	/** Seconds of the file, and how many of its frames a second it plays. */
	seconds = $state(0);
	plays = $state(30);
	frame = $state(0);
	letGo = $state<number | null>(null);
	marks = $state<Record<number, Marks>>({});
	told = $state.raw<ClipTold | null>(null);
	problem = $state('');
	busy = $state(false);

	readonly open = $derived(Boolean(this.src || this.film));
	readonly simulated = $derived(this.film !== null);
	readonly last = $derived(
		this.film ? this.film.frames.length - 1 : Math.max(Math.floor(this.seconds * this.plays) - 1, 0)
	);
	/** The frames on which both ends are marked, rising. */
	readonly whole = $derived(
		Object.entries(this.marks)
			.filter(([, m]) => m.nock && m.point)
			.map(([frame, m]) => ({
				frame: Number(frame),
				nock_px: [m.nock!.x, m.nock!.y] as [number, number],
				point_px: [m.point!.x, m.point!.y] as [number, number]
			}))
			.sort((a, b) => a.frame - b.frame)
	);
	readonly here = $derived(this.marks[this.frame] ?? {});
	/** What the next tap marks; null where both ends are. */
	readonly next = $derived(this.here.point ? null : this.here.nock ? 'the point' : 'the nock');
	/** The computed shape on this frame, where it was asked for. */
	readonly shape = $derived(
		this.told?.shapes[this.whole.findIndex((m) => m.frame === this.frame)] ?? null
	);

	constructor(
		private readonly bench: () => RigBench,
		/** Frames a second at which it was filmed, as read from its field. */
		private readonly rate: () => Promise<number>
	) {}

	take(file: File): void {
		this.leave();
		this.src = URL.createObjectURL(file);
	}

	async practise(again: number): Promise<void> {
		this.leave();
		this.busy = true;
		try {
			const film = await told(
				api.GET('/api/rigs/{id}/film', {
					params: { path: { id: this.bench().id }, query: { again } }
				})
			);
			[this.width, this.height] = [film.width, film.height];
			this.film = film;
		} catch (error) {
			this.problem = (error as Error).message;
		} finally {
			this.busy = false;
		}
	}

	/** An own clip was opened by the browser. */
	opened(video: HTMLVideoElement): void {
		[this.width, this.height] = [video.videoWidth, video.videoHeight];
		this.lasts(video);
	}
	/** How long it is; some recorders write it down nowhere, and it is found at the far end. */
	lasts(video: HTMLVideoElement): void {
		if (Number.isFinite(video.duration)) this.seconds = video.duration;
		else video.currentTime = 1e7;
	}
	failed(): void {
		this.leave();
		this.problem = 'Your browser cannot play this clip: save it as MP4 or WebM.';
	}

	to(frame: number): void {
		this.frame = Math.min(Math.max(Math.round(frame), 0), this.last);
	}

	/** Mark the nock, then the point; with both the next frame comes. */
	mark(x: number, y: number): void {
		const was = this.here;
		const both = Boolean(was.nock);
		this.marks = {
			...this.marks,
			[this.frame]: both ? { ...was, point: { x, y } } : { nock: { x, y } }
		};
		if (both) {
			this.ask();
			this.to(this.frame + 1);
		}
	}
	/** Take this frame's marks back, or the latest of the frame before. */
	back(): void {
		const { [this.frame]: here, ...others } = this.marks;
		if (here?.nock || here?.point) this.marks = others;
		else {
			const before = this.whole.filter((m) => m.frame < this.frame).at(-1);
			if (before) this.to(before.frame);
		}
		this.ask();
	}
	release(): void {
		this.letGo = this.letGo === this.frame ? null : this.frame;
		this.ask();
	}

	leave(): void {
		if (this.src) URL.revokeObjectURL(this.src);
		[this.src, this.film, this.told, this.letGo, this.problem] = ['', null, null, null, ''];
		[this.frame, this.marks, this.seconds] = [0, {}, 0];
		[this.width, this.height] = [REAL.width, REAL.height];
	}

	/** The clip as it is logged. */
	async trial(
		tail: TrialOf<'clip'>['tail'],
		was: TrialOf<'clip'>['by'] = 'telephone'
	): Promise<Omit<TrialOf<'clip'>, 'kind' | 'notes' | 'day'>> {
		return {
			frames_a_second: await this.rate(),
			let_go: this.letGo,
			marks: this.whole,
			tail,
			by: this.simulated ? 'simulated' : this.src ? 'telephone' : was
		};
	}

	private readonly ask = latest<void>(async () => {
		this.problem = '';
		if (this.letGo === null || this.whole.length < 2) {
			this.told = null;
			return;
		}
		try {
			const bench = this.bench();
			const own = await this.trial('clear');
			this.told = await told(
				api.POST('/api/rigs/{id}/clip', {
					params: { path: { id: bench.id } },
					body: {
						changes: $state.snapshot(bench.changes) as Record<string, unknown>,
						trial: { kind: 'clip', notes: '', day: '', ...own }
					}
				})
			);
		} catch (error) {
			this.told = null;
			this.problem = (error as Error).message;
		}
	});
}
