import { exactly, type MipSolver } from '../core/optimum';

/** The exact solver that the core's problems are given to; loaded when it is first needed. */
export async function exactSolver(): Promise<MipSolver> {
  const { default: loadHighs } = await import('highs');
  const highs = await loadHighs({});
  return exactly(highs);
}
