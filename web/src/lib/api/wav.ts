/** Samples of one channel, ±1, as a WAV file of 16 bit. */
export function wavFile(samples: Float32Array, rate: number, name = 'recording.wav'): File {
	const bytes = new DataView(new ArrayBuffer(44 + samples.length * 2));
	const text = (at: number, word: string) =>
		[...word].forEach((c, i) => bytes.setUint8(at + i, c.charCodeAt(0)));
	text(0, 'RIFF');
	bytes.setUint32(4, 36 + samples.length * 2, true);
	text(8, 'WAVEfmt ');
	bytes.setUint32(16, 16, true);
	bytes.setUint16(20, 1, true);
	bytes.setUint16(22, 1, true);
	bytes.setUint32(24, rate, true);
	bytes.setUint32(28, rate * 2, true);
	bytes.setUint16(32, 2, true);
	bytes.setUint16(34, 16, true);
	text(36, 'data');
	bytes.setUint32(40, samples.length * 2, true);
	samples.forEach((s, i) =>
		bytes.setInt16(44 + i * 2, Math.round(Math.max(-1, Math.min(1, s)) * 32767), true)
	);
	return new File([bytes.buffer as ArrayBuffer], name, { type: 'audio/wav' });
}
