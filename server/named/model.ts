import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type ModelStatic, type Sequelize } from 'sequelize'

/** A document that is kept under a name. */
export interface NamedRow extends Model<InferAttributes<NamedRow>, InferCreationAttributes<NamedRow>> {
  readonly id: CreationOptional<string>
  readonly name: string
  /** As JSON. */
  document: string
  readonly createdAt: Date
}

/** The rows of one table of named documents. */
export function namedModel(sequelize: Sequelize, table: string): ModelStatic<NamedRow> {
  return sequelize.define<NamedRow>(
    table,
    { id: { type: DataTypes.STRING(40), primaryKey: true }, name: DataTypes.STRING(80), document: DataTypes.TEXT, createdAt: DataTypes.DATE },
    { tableName: table, timestamps: false },
  )
}
