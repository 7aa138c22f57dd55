<script lang="ts">
	import { onDestroy } from 'svelte';
	import { wavFile } from '$lib/api/wav';

	/** Recording with this machine's microphone, where there is one and it is allowed. */
	interface Props {
		onfile: (file: File) => void;
		onproblem: (reason: string) => void;
	}
	let { onfile, onproblem }: Props = $props();
	const MOST_MS = 180_000;
	let recorder = $state.raw<MediaRecorder | null>(null);
	let seconds = $state(0);
	let ticking: ReturnType<typeof setInterval> | undefined;
	const can = typeof navigator !== 'undefined' && !!navigator.mediaDevices?.getUserMedia;

	async function start(): Promise<void> {
		try {
			// Whatever the machine would do to make speech pleasant would spoil the levels.
			const stream = await navigator.mediaDevices.getUserMedia({
				audio: { autoGainControl: false, noiseSuppression: false, echoCancellation: false }
			});
			const parts: Blob[] = [];
			const made = new MediaRecorder(stream);
			made.ondataavailable = (e) => parts.push(e.data);
			made.onstop = () => {
				stream.getTracks().forEach((track) => track.stop());
				void decode(new Blob(parts));
			};
			made.start();
			recorder = made;
			seconds = 0;
			ticking = setInterval(() => {
				seconds++;
				if (seconds * 1000 >= MOST_MS) stop();
			}, 1000);
		} catch {
			onproblem(
				'There is no microphone, or it is not allowed here. Use a recording or type levels.'
			);
		}
	}

	function stop(): void {
		clearInterval(ticking);
		recorder?.stop();
		recorder = null;
	}
	onDestroy(stop);

	async function decode(blob: Blob): Promise<void> {
		const context = new AudioContext();
		try {
			const sound = await context.decodeAudioData(await blob.arrayBuffer());
			onfile(wavFile(sound.getChannelData(0), sound.sampleRate));
		} catch {
			onproblem('The recording could not be read. Record a little longer.');
		} finally {
			await context.close();
		}
	}
</script>

{#if can}
	{#if recorder}
		<button type="button" class="link" onclick={stop}>Stop recording, {seconds} s</button>
	{:else}
		<button type="button" class="link" onclick={start}>Microphone</button>
	{/if}
{/if}
