import { Asks } from './asks';

test('answers go to their own questions, in whatever order they come', async () => {
  const asks = new Asks();
  const numbers: number[] = [];
  const first = asks.ask<string>((ask) => numbers.push(ask));
  const second = asks.ask<string>((ask) => numbers.push(ask));
  asks.settle(numbers[1]!, 'two');
  asks.settle(numbers[0]!, 'one');
  asks.settle(99, 'nobody asked');
  expect(await Promise.all([first, second])).toEqual(['one', 'two']);
});

test('when whoever answers is gone all that waits is refused, and what is asked later is not', async () => {
  const asks = new Asks();
  const lost = asks.ask(() => undefined);
  asks.refuse(new Error('gone'));
  await expect(lost).rejects.toThrow('gone');
  let number = 0;
  const next = asks.ask<string>((ask) => (number = ask));
  asks.settle(number, 'there');
  expect(await next).toBe('there');
});
