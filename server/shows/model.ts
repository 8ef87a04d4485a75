import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize'

/** A show as stored: the newest document and its revision. */
export class ShowRow extends Model<InferAttributes<ShowRow>, InferCreationAttributes<ShowRow>> {
  declare id: string
  declare name: string
  declare revision: number
  declare document: string
  declare createdAt: Date
  declare updatedAt: Date
  declare deletedAt: Date | null
  declare saveId: string | null
}

/** An earlier or the newest state of a show. */
export class ShowVersionRow extends Model<InferAttributes<ShowVersionRow>, InferCreationAttributes<ShowVersionRow>> {
  declare showId: string
  declare revision: number
  declare document: string
  declare savedAt: Date
  declare label: string | null
}

/** Ties the models to a database. */
export function initShowModels(sequelize: Sequelize): void {
  ShowRow.init(
    {
      id: { type: DataTypes.STRING(40), primaryKey: true },
      name: DataTypes.STRING(80),
      revision: DataTypes.INTEGER,
      document: DataTypes.TEXT,
      createdAt: DataTypes.DATE,
      updatedAt: DataTypes.DATE,
      deletedAt: DataTypes.DATE,
      saveId: DataTypes.STRING(40),
    },
    { sequelize, tableName: 'shows', timestamps: false },
  )
  ShowVersionRow.init(
    {
      showId: { type: DataTypes.STRING(40), primaryKey: true },
      revision: { type: DataTypes.INTEGER, primaryKey: true },
      document: DataTypes.TEXT,
      savedAt: DataTypes.DATE,
      label: DataTypes.STRING(160),
    },
    { sequelize, tableName: 'show_versions', timestamps: false },
  )
}
