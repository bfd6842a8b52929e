import { spawn } from 'node:child_process';
import path from 'node:path';

/** A stand-in in a process of its own, as it ships; `said` is the first thing it prints. */
export async function openStandin(script: string): Promise<{ readonly said: string; stop(): void }> {
  const file = path.join(__dirname, '../../standins', script);
  const child = spawn(process.execPath, [file], { stdio: ['ignore', 'pipe', 'inherit'] });
  const said = await new Promise<string>((resolve, reject) => {
    child.stdout.once('data', (chunk: Buffer) => resolve(chunk.toString()));
    child.once('exit', (code) => reject(new Error(`the stand-in ended with ${code}`)));
  });
  return { said, stop: () => child.kill() };
}
