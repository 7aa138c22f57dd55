import type { Schemas } from '$lib/api/client';
import { sendJob } from '$lib/api/upload';

const NO_SHOT = 'No shot was found in it. Record nearer, or type what you read or heard.';
type Source = 'recording' | 'simulated';
const BEFORE_S = 0.15;
const HEARD_MS = 900;

/** A recording being listened to: what was found, what the archer marked, took out and added. */
export class Recorded {
	sound = $state.raw<Schemas['Sound'] | null>(null);
	by = $state<Source>('recording');
	/** Shots taken out, added by hand, and marked as one's own [s]. */
	out = $state<number[]>([]);
	added = $state<number[]>([]);
	mine = $state<number[]>([]);
	/** Whether it is being listened to, and how much of the work is done, where that is told. */
	busy = $state(false);
	share = $state<number | null>(null);
	private file: File | null = null;
	private stopping: AbortController | null = null;

	readonly shots = $derived(
		(this.sound?.events ?? []).filter((e) => e.kind === 'shot' && !this.out.includes(e.at_s))
	);
	/** Levels [dB] of the shots that nothing spoils. */
	readonly levels = $derived(
		this.shots.filter((e) => e.usable).map((e) => Math.round(e.level_db * 100) / 100)
	);
	readonly spoilt = $derived(this.shots.filter((e) => !e.usable).length);

	async hear(file: File, by: Source): Promise<void> {
		this.file = file;
		this.by = by;
		[this.out, this.added, this.mine] = [[], [], []];
		await this.listen();
		if (!this.shots.length && !this.sound?.ask) throw new Error(NO_SHOT);
	}

	/** A sound at a time is one of the archer's own shots: the others are told by their likeness. */
	async mark(seconds: number): Promise<void> {
		this.mine = [...this.mine, seconds];
		this.out = [];
		await this.listen();
	}

	/** Call a place in the recording a shot, whatever was found there. */
	async add(seconds: number): Promise<void> {
		if (!Number.isFinite(seconds)) return;
		this.added = [...this.added, Math.round(seconds * 1000) / 1000];
		await this.listen();
	}

	press(at: number): void {
		this.out = this.out.includes(at) ? this.out.filter((o) => o !== at) : [...this.out, at];
	}

	stop(): void {
		this.stopping?.abort();
	}

	leave(): void {
		this.sound = null;
		this.file = null;
	}

	/** Let a sound be heard. */
	play(at: number): void {
		if (!this.file) return;
		const address = URL.createObjectURL(this.file);
		const player = new Audio(address);
		const over = () => {
			player.pause();
			URL.revokeObjectURL(address);
		};
		player.currentTime = Math.max(0, at - BEFORE_S);
		// Where nothing can be played the mark still stands on the outline.
		void player.play().then(() => setTimeout(over, HEARD_MS), over);
	}

	private async listen(): Promise<void> {
		if (!this.file) return;
		this.stopping = new AbortController();
		this.busy = true;
		this.share = null;
		try {
			this.sound = await sendJob<Schemas['Sound']>(
				'sound',
				this.file,
				{ onRead: (share) => (this.share = share), signal: this.stopping.signal },
				this.added.length ? `?${this.added.map((t) => `added_s=${t}`).join('&')}` : '',
				this.mine.length ? { mine_at_s: JSON.stringify(this.mine) } : {}
			);
		} finally {
			this.busy = false;
		}
	}
}
