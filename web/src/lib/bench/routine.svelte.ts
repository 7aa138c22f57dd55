import type { Schemas } from '$lib/api/client';

export type Step = Schemas['RoutineStep'];
export type Voice = 'silent' | 'beeps' | 'spoken';
const TICK_MS = 100;
const BEEP = { hz: 880, seconds: 0.12, loud: 0.15 };

/** Goes through a routine's steps by the clock, silently, with a beep or with the browser's voice. */
export class RoutineTimer {
	/** The step that runs; −1 where none does. */
	at = $state(-1);
	/** Seconds left of it. */
	left = $state(0);
	voice = $state<Voice>('silent');
	private steps: Step[] = [];
	private clock: ReturnType<typeof setInterval> | undefined;
	private until = 0;
	private sound: AudioContext | undefined;

	readonly canSpeak = typeof window !== 'undefined' && 'speechSynthesis' in window;

	start(steps: Step[]): void {
		this.stop();
		if (!steps.length) return;
		this.steps = steps;
		this.go(0);
		this.clock = setInterval(() => this.tick(), TICK_MS);
	}

	stop(): void {
		clearInterval(this.clock);
		if (this.canSpeak) speechSynthesis.cancel();
		[this.at, this.left] = [-1, 0];
	}

	/** When the page is left: the clock stops and the loudspeaker is given back. */
	leave(): void {
		this.stop();
		void this.sound?.close();
		this.sound = undefined;
	}

	private go(to: number): void {
		const step = this.steps[to];
		if (!step) return this.stop();
		[this.at, this.left] = [to, step.seconds];
		this.until = Date.now() + 1000 * step.seconds;
		if (this.voice === 'beeps') this.beep();
		if (this.voice === 'spoken' && this.canSpeak)
			speechSynthesis.speak(new SpeechSynthesisUtterance(step.says));
	}

	private tick(): void {
		this.left = Math.max((this.until - Date.now()) / 1000, 0);
		if (this.left === 0) this.go(this.at + 1);
	}

	private beep(): void {
		this.sound ??= new AudioContext();
		const [tone, loud] = [this.sound.createOscillator(), this.sound.createGain()];
		tone.frequency.value = BEEP.hz;
		loud.gain.value = BEEP.loud;
		tone.connect(loud).connect(this.sound.destination);
		tone.start();
		tone.stop(this.sound.currentTime + BEEP.seconds);
	}
}
