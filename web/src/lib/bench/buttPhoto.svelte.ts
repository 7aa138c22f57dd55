import { api, told } from '$lib/api/client';
import { blobOf } from '$lib/api/recording';
import { latest } from './latest';
import { reference } from './reference.svelte';

export type Shaft = 'fletched' | 'bare';
interface Px {
	x: number;
	y: number;
}
const CORNERS = ['upper left', 'upper right', 'lower right', 'lower left'];

/** A photo of a butt: its corners marked once, then where the aim was, then each arrow. */
export class ButtPhoto {
	src = $state('');
	width = $state(0);
	height = $state(0);
	simulated = $state(false);
	corners = $state<Px[]>([]);
	zero = $state<Px | null>(null);
	arrows = $state<(Px & { shaft: Shaft })[]>([]);
	/** The butt's true size, as typed. */
	wide = $state('');
	high = $state('');
	private told = $state.raw<{ right_cm: number; up_cm: number; shaft: Shaft }[]>([]);
	problem = $state('');
	busy = $state(false);

	/** Where the marked arrows landed; none while their answer is out. */
	readonly places = $derived(this.told.length === this.arrows.length ? this.told : []);

	/** What the next mark is. */
	readonly next = $derived(
		this.corners.length < 4
			? `the butt’s ${CORNERS[this.corners.length]} corner`
			: this.zero === null
				? 'the mark you aimed at'
				: 'the next arrow'
	);

	/** Take a photo from the archer's own device; it is made plain on the way. */
	async take(file: File): Promise<void> {
		const body = new FormData();
		body.append('file', file);
		await this.show(false, async () => {
			const answer = await fetch('/api/compute/photo', { method: 'POST', body });
			return URL.createObjectURL(await blobOf(answer));
		});
	}

	/** A photo of the simulated camera, to practise on. */
	async practise(again: number): Promise<void> {
		await this.show(true, async () => {
			const photo = await told(
				api.GET('/api/instruments/camera/butt', { params: { query: { again } } })
			);
			this.wide = this.high = reference.text(photo.size_cm, 'spot', false);
			return photo.image;
		});
	}

	private async show(simulated: boolean, load: () => Promise<string>): Promise<void> {
		this.leave();
		this.busy = true;
		try {
			const src = await load();
			const image = new Image();
			image.src = src;
			await image.decode();
			[this.width, this.height] = [image.naturalWidth, image.naturalHeight];
			[this.src, this.simulated] = [src, simulated];
		} catch (error) {
			this.problem = (error as Error).message;
		} finally {
			this.busy = false;
		}
	}

	mark(x: number, y: number, shaft: Shaft): void {
		if (this.corners.length < 4) this.corners = [...this.corners, { x, y }];
		else if (this.zero === null) this.zero = { x, y };
		else this.arrows = [...this.arrows, { x, y, shaft }];
		this.read();
	}

	/** Take the latest mark back. */
	back(): void {
		if (this.arrows.length) this.arrows = this.arrows.slice(0, -1);
		else if (this.zero) this.zero = null;
		else this.corners = this.corners.slice(0, -1);
		this.read();
	}

	leave(): void {
		if (this.src.startsWith('blob:')) URL.revokeObjectURL(this.src);
		[this.src, this.problem, this.zero] = ['', '', null];
		[this.corners, this.arrows, this.told] = [[], [], []];
	}

	/** The arrows' places in centimetres, as the marks and the typed size now say. */
	readonly read = latest<void>(async () => {
		const arrows = $state.snapshot(this.arrows);
		this.problem = '';
		this.told = [];
		if (this.corners.length < 4) return;
		try {
			const [width_cm, height_cm] = [
				await reference.read(this.wide, 'spot'),
				await reference.read(this.high, 'spot')
			];
			const pair = ({ x, y }: Px): [number, number] => [x, y];
			const { places_cm } = await told(
				api.POST('/api/compute/photo-places', {
					body: {
						corners_px: this.corners.map(pair),
						width_cm,
						height_cm,
						marks_px: arrows.map(pair),
						zero_px: this.zero ? pair(this.zero) : null
					}
				})
			);
			const at = (cm: number) => Math.round(cm * 10) / 10;
			this.told = places_cm.map(([x, y], i) => ({
				right_cm: at(x!),
				up_cm: at(y!),
				shaft: arrows[i]!.shaft
			}));
		} catch (error) {
			this.problem = (error as Error).message;
		}
	});
}
