import { describe, expect, it } from 'vitest';
import { wavFile } from './wav';

describe('a recording as WAV', () => {
	it('has the header of its length and rate, and its samples', async () => {
		const file = wavFile(new Float32Array([0, 0.5, -1, 2]), 48000);
		expect(file.size).toBe(44 + 8);
		const bytes = new DataView(
			await new Promise<ArrayBuffer>((done) => {
				const reader = new FileReader();
				reader.onload = () => done(reader.result as ArrayBuffer);
				reader.readAsArrayBuffer(file);
			})
		);
		const word = (at: number) =>
			String.fromCharCode(...[0, 1, 2, 3].map((i) => bytes.getUint8(at + i)));
		expect([word(0), word(8), word(36)]).toEqual(['RIFF', 'WAVE', 'data']);
		expect(bytes.getUint32(24, true)).toBe(48000);
		expect(bytes.getUint32(40, true)).toBe(8);
		expect([44, 46, 48, 50].map((at) => bytes.getInt16(at, true))).toEqual([
			0, 16384, -32767, 32767
		]);
	});
});
