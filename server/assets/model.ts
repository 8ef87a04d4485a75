import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize'

/** A stored picture, clip or look; the file lies in the data folder under its hash. */
export class AssetRow extends Model<InferAttributes<AssetRow>, InferCreationAttributes<AssetRow>> {
  declare hash: string
  declare mimeType: string
  declare byteLength: number
  declare widthPx: number
  declare heightPx: number
  declare fileName: string
  declare isMoving: boolean
  declare createdAt: Date
}

/** Ties the model to a database. */
export function initAssetModel(sequelize: Sequelize): void {
  AssetRow.init(
    {
      hash: { type: DataTypes.STRING(64), primaryKey: true },
      mimeType: DataTypes.STRING(40),
      byteLength: DataTypes.INTEGER,
      widthPx: DataTypes.INTEGER,
      heightPx: DataTypes.INTEGER,
      fileName: DataTypes.STRING(200),
      isMoving: DataTypes.BOOLEAN,
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'assets', timestamps: false },
  )
}
