import type { Schemas } from '$lib/api/client';
import { reference } from '$lib/bench/reference.svelte';
import type { Line } from './DistanceTable.svelte';

type Aim = Schemas['CrawlsView'];
type Crawl = Aim['rows'][number];
type Gap = Aim['gaps'][number];

const bare = (value: number | null | undefined, quantity: string): string =>
	value == null ? '–' : reference.text(value, quantity, false);

type Common = Pick<Crawl & Gap, 'distance_m' | 'near_m' | 'far_m' | 'level_distance_m'>;
const spaces = <Row extends Common>(sloped: boolean): Line<Row>[] => [
	{
		title: 'Good from',
		quantity: 'distance',
		kind: 'quiet',
		of: (r) => bare(r.near_m, 'distance')
	},
	{ title: 'to', quantity: 'distance', kind: 'quiet', of: (r) => bare(r.far_m, 'distance') },
	...(sloped
		? [
				{
					title: 'Shoots like',
					quantity: 'distance',
					of: (r: Row) => bare(r.level_distance_m, 'distance')
				}
			]
		: [])
];

/** The lines of a chart of crawls. */
export const crawlLines = (aim: Aim, sloped: boolean): Line<Crawl>[] => [
	{ title: 'Crawl', quantity: 'crawl', kind: 'main', of: (r) => bare(r.crawl_mm, 'crawl') },
	{
		title: '±',
		quantity: 'crawl',
		kind: 'quiet',
		of: (_, i) => bare(aim.plus_minus_mm[i], 'crawl')
	},
	{
		title: '± on the butt',
		quantity: 'spot',
		kind: 'quiet',
		of: (_, i) => bare(aim.off_cm[i], 'spot')
	},
	{
		title: 'Tab marks',
		of: (r, i) =>
			r.crawl_mm == null ? '–' : aim.counted[i]!.words || bare(aim.counted[i]!.marks, 'marks')
	},
	{
		title: 'Fingers',
		of: (r, i) => (r.crawl_mm == null ? '–' : bare(aim.counted[i]!.fingers, 'finger_parts'))
	},
	...(aim.rows.some((r) => r.hold_over_cm != null)
		? [
				{
					title: 'Hold over',
					quantity: 'spot',
					of: (r: Crawl) => bare(r.hold_over_cm, 'spot')
				}
			]
		: []),
	...spaces<Crawl>(sloped)
];

/** The lines of a chart of gaps; over the spot they are negative. */
export const gapLines = (aim: Aim, sloped: boolean): Line<Gap>[] => [
	{
		title: 'Tip under the spot',
		quantity: 'spot',
		kind: 'main',
		of: (r) => bare(r.gap_cm, 'spot')
	},
	{
		title: '±',
		quantity: 'spot',
		kind: 'quiet',
		of: (_, i) => bare(aim.gap_plus_minus_cm[i], 'spot')
	},
	{ title: 'Beside the tip, shafts', of: (r) => bare(r.tip_widths, 'shafts') },
	...spaces<Gap>(sloped)
];
