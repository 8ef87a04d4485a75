import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize'

/** A named chain of steps. */
export class PresetRow extends Model<InferAttributes<PresetRow>, InferCreationAttributes<PresetRow>> {
  declare id: string
  declare name: string
  /** The chain file as JSON. */
  declare document: string
  declare createdAt: Date
}

/** Ties the model to a database. */
export function initPresetModel(sequelize: Sequelize): void {
  PresetRow.init(
    { id: { type: DataTypes.STRING(40), primaryKey: true }, name: DataTypes.STRING(80), document: DataTypes.TEXT, createdAt: DataTypes.DATE },
    { sequelize, tableName: 'presets', timestamps: false },
  )
}
