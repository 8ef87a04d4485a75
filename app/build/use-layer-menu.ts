// The menu of the selected layers: the commands that are for them now.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { MenuAction } from '../base/ActionMenu.vue'
import { layerCommands } from '../commands/layer-commands.ts'
import { layerTarget } from '../commands/layer-target.ts'
import type { CommandId } from '../commands/list.ts'
import { useCommands } from '../commands/use-commands.ts'

const layerCommandIds = Object.keys(layerCommands) as CommandId[]

export function useLayerMenu() {
  const { t } = useI18n()
  const { commands } = useCommands()

  /** What a command is called for what is selected now. */
  function labelOf(id: CommandId): string {
    const { behindName, count } = layerTarget.value ?? { behindName: null, count: 0 }
    if (id === 'groupWithBehind' && behindName !== null) return t('layer.groupWith', { name: behindName })
    if (id === 'removeLayers' && count > 1) return t('layer.removeMany')
    return t(`commands.does.${id}`)
  }

  /** Why it cannot be done, unless the whole scene is locked, which is said beside it; else what it is for. */
  function detailOf(whyNot: string | null, detail: string | undefined): Pick<MenuAction, 'detail'> {
    if (whyNot !== null && layerTarget.value?.isLocked !== true) return { detail: t('commands.cannot', { why: whyNot }) }
    return detail === undefined ? {} : { detail: t(detail) }
  }

  return computed<MenuAction[]>(() =>
    layerCommandIds.flatMap((id): MenuAction[] => {
      const { isFor, icon, heading, detail, whyNot, run } = commands.value[id]
      if (!isFor) return []
      return [
        {
          label: labelOf(id),
          icon,
          disabled: whyNot !== null,
          ...(heading === undefined ? {} : { group: t(heading) }),
          ...(whyNot !== null ? { why: whyNot } : {}),
          ...detailOf(whyNot, detail),
          run,
        },
      ]
    }),
  )
}
