/** What a fleet may follow and wear, by its family. */
import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type FleetBody, type SetView } from '@/api'
import { onBack } from '@/api/reach'

export interface Offers {
  recipes: Ref<string[]>
  sets: Ref<SetView[]>
}

/** Asked for while the form is open, and again once a server that was away is back; an answer that was overtaken is dropped. */
export function useOffers(isOpen: Ref<boolean>, family: () => FleetBody['family']): Offers {
  const recipes = ref<string[]>([])
  const sets = ref<SetView[]>([])
  let asked = 0
  let known = ''

  async function load(): Promise<void> {
    if (!isOpen.value) return
    const mine = ++asked
    const path = { family: family() }
    try {
      const [offered, shelf] = await Promise.all([
        answerOf(api.GET('/api/recipes/{family}', { params: { path } })),
        answerOf(api.GET('/api/string-sets/{family}', { params: { path } })),
      ])
      if (mine !== asked) return
      recipes.value = offered.recipes.map((recipe) => recipe.name)
      sets.value = shelf
      known = path.family
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine !== asked || known === path.family) return
      recipes.value = []
      sets.value = []
    }
  }

  watch([isOpen, family], () => void load())
  onScopeDispose(onBack(() => void load()))
  return { recipes, sets }
}
