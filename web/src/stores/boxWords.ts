import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'

import { api, ask, type BoxModel, type School } from '../api/client'

/** The box catalogue and the schools of heights, read once. */
export const useBoxWords = defineStore('boxWords', () => {
  const models = shallowRef<BoxModel[]>([])
  const schools = shallowRef<School[]>([])
  const asked = ref(false)

  async function load() {
    if (asked.value) return
    asked.value = true
    const { data } = await ask(api.GET('/api/box-words'))
    if (!data) return
    models.value = data.models
    schools.value = data.schools
  }

  return { models, schools, load }
})
