/** A failure that the person at the terminal can act on: shown as its line alone, without a stack. */
export class Failure extends Error {}

/** Runs a script to its end and turns a failure into its line and exit code 1. */
export async function main(script: () => Promise<void>): Promise<void> {
  try {
    await script();
  } catch (error) {
    console.error(error instanceof Failure ? `\n${error.message}` : error);
    process.exitCode = 1;
  }
}
