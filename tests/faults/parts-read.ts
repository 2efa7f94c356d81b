/** Which parts of the evidence something reads, found out by looking over its shoulder. */
import type { Evidence, HostEvidence } from '#core/facts/evidence';
import { PART_OF } from '#core/facts/part-times';
import type { Part } from '#core/facts/parts';

/** The evidence, and the parts that are read of it from now on. */
export function watched(evidence: Evidence): { evidence: Evidence; read: Set<Part> } {
  const read = new Set<Part>();
  const hosts = evidence.hosts.map(
    (host) =>
      new Proxy(host, {
        get(target, key) {
          if (key === 'tls') read.add('tls');
          else if (key !== 'host' && key !== 'role') read.add('http');
          return target[key as keyof HostEvidence];
        },
      }),
  );
  const proxy = new Proxy(evidence, {
    get(target, key) {
      const part = PART_OF[key as keyof Evidence];
      if (part) read.add(part);
      return key === 'hosts' ? hosts : target[key as keyof Evidence];
    },
  });
  return { evidence: proxy, read };
}
