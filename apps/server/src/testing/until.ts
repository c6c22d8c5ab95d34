/** Waits for something to become so; what never does fails the test by its own time limit. */
export async function until(so: () => boolean | Promise<boolean>): Promise<void> {
  while (!(await so())) await new Promise((again) => setTimeout(again, 5));
}
