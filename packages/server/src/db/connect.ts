import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import type { Config } from '../config.ts';
import { migrations } from './migrations.ts';
import { defineModels } from './models.ts';

/** Connects to the project's own database on loopback and brings its schema up to date; `steps` are those up to which. */
export async function connect({ database }: Pick<Config, 'database'>, steps: typeof migrations = migrations): Promise<Sequelize> {
  const sequelize = new Sequelize(database.name, 'jadebell', database.password, {
    host: '127.0.0.1',
    port: database.port,
    dialect: 'mariadb',
    logging: false,
    dialectOptions: { connectTimeout: 5000, maxAllowedPacket: 64 * 2 ** 20 },
    pool: { max: 8 },
  });
  await sequelize.authenticate();
  defineModels(sequelize);
  await new Umzug({
    migrations: steps,
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  }).up();
  return sequelize;
}
