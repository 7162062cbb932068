import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startCluster, type Cluster } from '../lib/cluster';

/** A cluster whose commits need not survive a power cut: what is measured here is work, not disks. */
export async function onScratch(work: (cluster: Cluster, scratch: string) => Promise<void>): Promise<void> {
  const scratch = mkdtempSync(join(tmpdir(), 'barys-fleet-'));
  const cluster = await startCluster(join(scratch, 'home'), { throwaway: true });
  try {
    await work(cluster, scratch);
  } finally {
    await cluster.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
}
