import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import Sending from './Sending.svelte';

describe('a file on its way', () => {
	it('says how far it is, then that it is being read', async () => {
		const onStop = vi.fn();
		const { rerender } = render(Sending, { share: 0.4, reading: 'checking every entry', onStop });
		expect(screen.getByRole('status')).toHaveTextContent('40 % sent');
		await rerender({ share: 1 });
		expect(screen.getByRole('status')).toHaveTextContent('checking every entry');
		await fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
		expect(onStop).toHaveBeenCalledOnce();
	});
});
