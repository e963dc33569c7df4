/**
 * Notices at the foot of the page: none is said twice, and none has to wait for those before.
 * @jest-environment jsdom
 */
import { ChakraProvider } from '@chakra-ui/react';
import { beforeAll, expect, it } from '@jest/globals';
import { render, screen, waitFor } from '@testing-library/react';
import { complain, notify, Notices } from '../src/common/notices.tsx';
import { system } from '../src/theme.ts';
import { asInBrowser } from './opened.tsx';

beforeAll(asInBrowser);

const shown = (...texts: string[]): number[] => texts.map((text) => screen.queryAllByText(text).length);

it('what is said again is shown once, and the newest takes the place of the oldest', async () => {
  render(
    <ChakraProvider value={system}>
      <Notices />
    </ChakraProvider>,
  );
  for (let i = 0; i < 3; i++) complain('The project was deleted', 'Bring it back from the page of projects.');
  await waitFor(() => expect(shown('The project was deleted')).toEqual([1]));
  notify('One');
  notify('Two');
  await waitFor(() => expect(shown('The project was deleted', 'One', 'Two')).toEqual([1, 1, 1]));
  // One that is still on its way is not let go of.
  await new Promise((resolve) => setTimeout(resolve, 300));
  notify('Three');
  await waitFor(() => expect(shown('The project was deleted', 'One', 'Two', 'Three')).toEqual([0, 1, 1, 1]));
});
