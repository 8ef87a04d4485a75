import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize'

/** What was decided for a site for good. */
export class SiteRow extends Model<InferAttributes<SiteRow>, InferCreationAttributes<SiteRow>> {
  declare origin: string
  declare decision: 'always' | 'never'
  declare decidedAt: Date
}

/** Ties the model to a database. */
export function initSiteModel(sequelize: Sequelize): void {
  SiteRow.init(
    { origin: { type: DataTypes.STRING(300), primaryKey: true }, decision: DataTypes.STRING(10), decidedAt: DataTypes.DATE },
    { sequelize, tableName: 'sites', timestamps: false },
  )
}
