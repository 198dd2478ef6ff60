import { ref } from 'vue'

interface Task {
  key: string
  run: () => Promise<void>
}

/**
 * Work that is done one after another, each seeing what the one before left. Of waiting tasks with the same key only
 * the newest is done: a held key becomes one step, looks passed over are not asked for.
 */
export function makeQueue() {
  const waiting: Task[] = []
  const pending = ref(0)
  let running = false

  async function work() {
    if (running) return
    running = true
    for (let task = waiting.shift(); task; task = waiting.shift()) {
      try {
        await task.run()
      } finally {
        pending.value = waiting.length
      }
    }
    running = false
  }

  /** Adds work; the promise is its answer, or null where a newer task of the same key took its place. */
  function add<T>(run: () => Promise<T>, key = ''): Promise<T | null> {
    return new Promise((resolve, reject) => {
      const task: Task & { skip?: () => void } = {
        key,
        run: () => run().then(resolve, reject),
      }
      task.skip = () => resolve(null)
      const old = key ? waiting.findIndex((one) => one.key === key) : -1
      if (old >= 0) {
        const [gone] = waiting.splice(old, 1)
        ;(gone as typeof task).skip?.()
      }
      waiting.push(task)
      pending.value = waiting.length + 1
      void work()
    })
  }

  return { add, pending }
}
