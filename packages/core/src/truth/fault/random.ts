/** Numbers from 0 up to 1, at random, that come again with the same seed. */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  const next = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
  // Seeds beside each other begin alike.
  for (let i = 0; i < 4; i += 1) next();
  return next;
}
