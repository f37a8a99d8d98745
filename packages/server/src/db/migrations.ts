import { DataTypes, type QueryInterface, QueryTypes } from 'sequelize';
import { digestOfText } from './stored.ts';

/** Steps of the database schema, in order; never edited once landed. */
export const migrations = [
  {
    name: '001-projects-runs',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      const id = { type: DataTypes.UUID, primaryKey: true };
      await q.createTable('projects', {
        id,
        title: { type: DataTypes.STRING(120), allowNull: false },
        revision: { type: DataTypes.INTEGER, allowNull: false },
        document: { type: DataTypes.TEXT('long'), allowNull: false },
        picture: { type: DataTypes.TEXT('medium'), allowNull: false },
        createdAt: { type: DataTypes.DATE(3), allowNull: false },
        updatedAt: { type: DataTypes.DATE(3), allowNull: false },
      });
      await q.createTable('runs', {
        id,
        projectId: { type: DataTypes.UUID, allowNull: false, references: { model: 'projects', key: 'id' }, onDelete: 'CASCADE' },
        number: { type: DataTypes.INTEGER, allowNull: false },
        state: { type: DataTypes.STRING(16), allowNull: false },
        document: { type: DataTypes.TEXT('long'), allowNull: false },
        givens: { type: DataTypes.TEXT('medium'), allowNull: false },
        meta: { type: DataTypes.TEXT('medium'), allowNull: true },
        problems: { type: DataTypes.TEXT('medium'), allowNull: true },
        startedAt: { type: DataTypes.DATE(3), allowNull: true },
        endedAt: { type: DataTypes.DATE(3), allowNull: true },
        createdAt: { type: DataTypes.DATE(3), allowNull: false },
      });
      await q.addIndex('runs', ['projectId', 'number'], { unique: true });
      await q.addIndex('runs', ['state', 'createdAt']);
      await q.createTable('chunks', {
        id: { type: DataTypes.INTEGER, autoIncrement: true, primaryKey: true },
        runId: { type: DataTypes.UUID, allowNull: false, references: { model: 'runs', key: 'id' }, onDelete: 'CASCADE' },
        name: { type: DataTypes.STRING(80), allowNull: false },
        part: { type: DataTypes.INTEGER, allowNull: false },
        type: { type: DataTypes.STRING(2), allowNull: false },
        shape: { type: DataTypes.STRING(80), allowNull: false },
        data: { type: DataTypes.BLOB('long'), allowNull: false },
      });
      await q.addIndex('chunks', ['runId', 'name', 'part'], { unique: true });
      await q.createTable('facts', { name: { type: DataTypes.STRING(60), primaryKey: true }, value: { type: DataTypes.TEXT, allowNull: false } });
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      for (const table of ['facts', 'chunks', 'runs', 'projects']) await q.dropTable(table);
    },
  },
  {
    // What lists tell of documents, beside them.
    name: '002-notes-accuracy',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.addColumn('projects', 'note', { type: DataTypes.TEXT, allowNull: true });
      await q.addColumn('runs', 'accuracy', { type: DataTypes.STRING(16), allowNull: false, defaultValue: 'normal' });
      await q.sequelize.query("UPDATE projects SET note = JSON_UNQUOTE(JSON_EXTRACT(document, '$.note')), updatedAt = updatedAt");
      await q.sequelize.query("UPDATE runs SET accuracy = COALESCE(JSON_UNQUOTE(JSON_EXTRACT(document, '$.solve.accuracy')), 'normal')");
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.removeColumn('projects', 'note');
      await q.removeColumn('runs', 'accuracy');
    },
  },
  {
    // Parameters were called givens. Documents are brought up to date as they are read.
    name: '003-parameters',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.renameColumn('runs', 'givens', 'parameters');
      await q.sequelize.query(`UPDATE runs SET problems = REPLACE(problems, '"part":"givens"', '"part":"parameters"')`);
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.renameColumn('runs', 'parameters', 'givens');
      await q.sequelize.query(`UPDATE runs SET problems = REPLACE(problems, '"part":"parameters"', '"part":"givens"')`);
    },
  },
  {
    // Adaptive accuracy was called certain.
    name: '004-adaptive',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.sequelize.query("UPDATE runs SET accuracy = 'adaptive' WHERE accuracy = 'certain'");
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.sequelize.query("UPDATE runs SET accuracy = 'certain' WHERE accuracy = 'adaptive'");
    },
  },
  {
    name: '005-folders',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.addColumn('projects', 'folder', { type: DataTypes.STRING(60), allowNull: false, defaultValue: '' });
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.removeColumn('projects', 'folder');
    },
  },
  {
    // A run is known by what it solved, so that nothing is solved twice.
    name: '006-digests',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.addColumn('runs', 'digest', { type: DataTypes.STRING(64), allowNull: true });
      await q.addColumn('runs', 'study', { type: DataTypes.STRING(40), allowNull: true });
      await q.addIndex('runs', ['digest']);
      const ids = await q.sequelize.query<{ id: string }>('SELECT id FROM runs', { type: QueryTypes.SELECT });
      for (const { id } of ids) {
        const [run] = await q.sequelize.query<{ document: string }>('SELECT document FROM runs WHERE id = ?', {
          type: QueryTypes.SELECT,
          replacements: [id],
        });
        const digest = digestOfText(run.document);
        if (digest) await q.sequelize.query('UPDATE runs SET digest = ? WHERE id = ?', { replacements: [digest, id] });
      }
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.removeColumn('runs', 'digest');
      await q.removeColumn('runs', 'study');
    },
  },
  {
    // Runs have names, notes and stars of their own, and points of studies that a server's end cut off are tried again, but not for ever.
    name: '007-names',
    async up({ context: q }: { context: QueryInterface }): Promise<void> {
      await q.addColumn('runs', 'name', { type: DataTypes.STRING(60), allowNull: false, defaultValue: '' });
      await q.addColumn('runs', 'note', { type: DataTypes.STRING(500), allowNull: false, defaultValue: '' });
      await q.addColumn('runs', 'starred', { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
      await q.addColumn('runs', 'attempts', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
    },
    async down({ context: q }: { context: QueryInterface }): Promise<void> {
      for (const column of ['name', 'note', 'starred', 'attempts']) await q.removeColumn('runs', column);
    },
  },
];
