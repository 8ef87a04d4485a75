import { DataTypes, type QueryInterface } from 'sequelize'

/** Steps that lift the database, in order. A released step never changes. */
export const migrations: readonly { readonly name: string; readonly up: (queries: QueryInterface) => Promise<void> }[] = [
  {
    name: '001-shows-and-assets',
    up: async (queries) => {
      await queries.createTable('shows', {
        id: { type: DataTypes.STRING(40), primaryKey: true },
        name: { type: DataTypes.STRING(80), allowNull: false },
        revision: { type: DataTypes.INTEGER, allowNull: false },
        document: { type: DataTypes.TEXT, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
        updatedAt: { type: DataTypes.DATE, allowNull: false },
        /** Set while a deleted show can still be brought back. */
        deletedAt: { type: DataTypes.DATE, allowNull: true },
      })
      await queries.createTable('show_versions', {
        showId: { type: DataTypes.STRING(40), primaryKey: true, references: { model: 'shows', key: 'id' }, onDelete: 'CASCADE' },
        revision: { type: DataTypes.INTEGER, primaryKey: true },
        document: { type: DataTypes.TEXT, allowNull: false },
        savedAt: { type: DataTypes.DATE, allowNull: false },
      })
      await queries.createTable('assets', {
        hash: { type: DataTypes.STRING(64), primaryKey: true },
        mimeType: { type: DataTypes.STRING(40), allowNull: false },
        byteLength: { type: DataTypes.INTEGER, allowNull: false },
        widthPx: { type: DataTypes.INTEGER, allowNull: false },
        heightPx: { type: DataTypes.INTEGER, allowNull: false },
        fileName: { type: DataTypes.STRING(200), allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
      })
    },
  },
  {
    name: '002-presets',
    up: async (queries) => {
      await queries.createTable('presets', {
        id: { type: DataTypes.STRING(40), primaryKey: true },
        name: { type: DataTypes.STRING(80), allowNull: false },
        document: { type: DataTypes.TEXT, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
      })
    },
  },
  {
    name: '003-one-preset-a-name',
    up: async (queries) => {
      // Names that came twice by saving at once: the newest stays.
      await queries.sequelize.query('DELETE FROM presets WHERE rowid NOT IN (SELECT max(rowid) FROM presets GROUP BY name)')
      await queries.addIndex('presets', ['name'], { unique: true, name: 'presets_name' })
    },
  },
  {
    name: '004-saves-have-ids',
    up: async (queries) => {
      /** The id that a tab gave its newest save, so that one whose answer was lost can be asked for again. */
      await queries.addColumn('shows', 'saveId', { type: DataTypes.STRING(40), allowNull: true })
    },
  },
  {
    name: '005-sites',
    up: async (queries) => {
      await queries.createTable('sites', {
        origin: { type: DataTypes.STRING(300), primaryKey: true },
        decision: { type: DataTypes.STRING(10), allowNull: false },
        decidedAt: { type: DataTypes.DATE, allowNull: false },
      })
    },
  },
  {
    name: '006-moving-pictures',
    up: async (queries) => {
      /** Whether a file has more than one picture, one after the other; none had before. */
      await queries.addColumn('assets', 'isMoving', { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false })
    },
  },
  {
    name: '007-versions-say-what-changed',
    up: async (queries) => {
      /** The edit that led to a version, in the presenter's words; null where it is not known. */
      await queries.addColumn('show_versions', 'label', { type: DataTypes.STRING(160), allowNull: true })
    },
  },
  {
    name: '008-graphics',
    up: async (queries) => {
      await queries.createTable('graphics', {
        id: { type: DataTypes.STRING(40), primaryKey: true },
        name: { type: DataTypes.STRING(80), allowNull: false },
        document: { type: DataTypes.TEXT, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
      })
      await queries.addIndex('graphics', ['name'], { unique: true, name: 'graphics_name' })
    },
  },
]
