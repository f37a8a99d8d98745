import type { Problem } from '@jadebell/core/document';
import type { Machine } from '@jadebell/core/solvers';
import type { SentProject } from './protocol.ts';

export interface PortsRequest {
  ticket: number;
  project: SentProject;
  machine: Machine;
}
export type PortsReply = { ticket: number; problems: Problem[] } | { ticket: number; fault: string };
