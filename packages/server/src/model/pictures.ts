import type { Project } from '@jadebell/core/document';
import { ProjectRow } from '../db/models.ts';
import type { ModelService } from './service.ts';

/** Keeps the pictures of projects: made after a save, the newest state of a project wins. */
export class Pictures {
  private readonly wanted = new Map<string, Project>();
  private readonly making = new Map<string, Promise<void>>();

  constructor(private readonly models: ModelService) {}

  /** Asks for a picture of a project as it is now. */
  redraw(id: string, document: Project): void {
    this.wanted.set(id, document);
    if (!this.making.has(id))
      this.making.set(
        id,
        this.make(id).finally(() => this.making.delete(id)),
      );
  }

  /** Waits until the picture of a project is that of its last save. */
  async settled(id: string): Promise<void> {
    await this.making.get(id);
  }

  private async make(id: string): Promise<void> {
    for (let document = this.wanted.get(id); document; document = this.wanted.get(id)) {
      this.wanted.delete(id);
      const picture = await this.models.picture(document).catch(() => '');
      // The time of the last change stays that of the last save.
      if (!this.wanted.has(id)) await ProjectRow.update({ picture }, { where: { id }, silent: true });
    }
  }
}
