import { ref, type Ref, watch } from 'vue'

import { useJob } from '../stores/job'

/** Acts whenever a dialog opens on a job, also where the address opened it before the job was here. */
export function whenShown(shown: Ref<boolean>, act: () => void) {
  const store = useJob()
  watch(
    () => shown.value && !!store.job,
    (now) => {
      if (now) act()
    },
    { immediate: true },
  )
}

/** Whether something was ever shown: what lies over the work is loaded when it is first opened. */
export function everShown(shown: () => boolean) {
  const ever = ref(false)
  watch(shown, (now) => (ever.value ||= now), { immediate: true })
  return ever
}
