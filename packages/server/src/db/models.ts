import type { RunState } from '@jadebell/api';
import { type CreationOptional, DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize';

export class ProjectRow extends Model<InferAttributes<ProjectRow>, InferCreationAttributes<ProjectRow>> {
  declare id: CreationOptional<string>;
  declare title: string;
  declare revision: CreationOptional<number>;
  /** The document's note, so that a list need not read the document. */
  declare note: CreationOptional<string | null>;
  /** Where it stands on the shelf; empty: in no folder. */
  declare folder: CreationOptional<string>;
  declare document: string;
  declare picture: CreationOptional<string>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class RunRow extends Model<InferAttributes<RunRow>, InferCreationAttributes<RunRow>> {
  declare id: CreationOptional<string>;
  declare projectId: string;
  /** Counts up within a project. */
  declare number: number;
  declare state: CreationOptional<RunState>;
  /** That of the document. */
  declare accuracy: string;
  /** The project as it was solved. */
  declare document: string;
  /** Of what it solves; null where an old document could not be read. */
  declare digest: CreationOptional<string | null>;
  /** Name of the study that asked for it first. */
  declare study: CreationOptional<string | null>;
  /** What it is called beside its number, what is noted of it, and whether it is one to come back to. */
  declare name: CreationOptional<string>;
  declare note: CreationOptional<string>;
  declare starred: CreationOptional<boolean>;
  /** How often it was taken from the queue. */
  declare attempts: CreationOptional<number>;
  /** Values of the parameters, JSON. */
  declare parameters: string;
  declare meta: CreationOptional<string | null>;
  declare problems: CreationOptional<string | null>;
  declare startedAt: CreationOptional<Date | null>;
  declare endedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
}

/** A piece of a result array, deflated. */
export class ChunkRow extends Model<InferAttributes<ChunkRow>, InferCreationAttributes<ChunkRow>> {
  declare id: CreationOptional<number>;
  declare runId: string;
  declare name: string;
  declare part: number;
  declare type: string;
  declare shape: string;
  declare data: Buffer;
}

/** Small facts that outlive a start, such as this machine's speed. */
export class FactRow extends Model<InferAttributes<FactRow>, InferCreationAttributes<FactRow>> {
  declare name: string;
  declare value: string;
}

/** Binds the models to a connection. */
export function defineModels(sequelize: Sequelize): void {
  const id = { type: DataTypes.UUID, defaultValue: DataTypes.UUIDV4, primaryKey: true };
  ProjectRow.init(
    {
      id,
      title: DataTypes.STRING(120),
      revision: { type: DataTypes.INTEGER, defaultValue: 1 },
      note: { type: DataTypes.TEXT, allowNull: true },
      folder: { type: DataTypes.STRING(60), defaultValue: '' },
      document: DataTypes.TEXT('long'),
      picture: { type: DataTypes.TEXT('medium'), defaultValue: '' },
      createdAt: DataTypes.DATE(3),
      updatedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'projects' },
  );
  RunRow.init(
    {
      id,
      projectId: DataTypes.UUID,
      number: DataTypes.INTEGER,
      state: { type: DataTypes.STRING(16), defaultValue: 'queued' },
      accuracy: DataTypes.STRING(16),
      document: DataTypes.TEXT('long'),
      digest: { type: DataTypes.STRING(64), allowNull: true },
      study: { type: DataTypes.STRING(40), allowNull: true },
      name: { type: DataTypes.STRING(60), defaultValue: '' },
      note: { type: DataTypes.STRING(500), defaultValue: '' },
      starred: { type: DataTypes.BOOLEAN, defaultValue: false },
      attempts: { type: DataTypes.INTEGER, defaultValue: 0 },
      parameters: DataTypes.TEXT('medium'),
      meta: { type: DataTypes.TEXT('medium'), allowNull: true },
      problems: { type: DataTypes.TEXT('medium'), allowNull: true },
      startedAt: { type: DataTypes.DATE(3), allowNull: true },
      endedAt: { type: DataTypes.DATE(3), allowNull: true },
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'runs', updatedAt: false },
  );
  ChunkRow.init(
    {
      id: { type: DataTypes.INTEGER, autoIncrement: true, primaryKey: true },
      runId: DataTypes.UUID,
      name: DataTypes.STRING(80),
      part: DataTypes.INTEGER,
      type: DataTypes.STRING(2),
      shape: DataTypes.STRING(80),
      data: DataTypes.BLOB('long'),
    },
    { sequelize, tableName: 'chunks', timestamps: false },
  );
  FactRow.init(
    { name: { type: DataTypes.STRING(60), primaryKey: true }, value: DataTypes.TEXT },
    { sequelize, tableName: 'facts', timestamps: false },
  );
}
