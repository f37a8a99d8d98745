import type { Problem } from '@jadebell/core/document';
import type { SentProject } from './protocol.ts';

export interface PortsRequest {
  ticket: number;
  project: SentProject;
}
export type PortsReply = { ticket: number; problems: Problem[] } | { ticket: number; fault: string };
