// The styles of the controls are worked out once and kept. Left to itself the
// library drops those of a control when the last one of its kind goes, and works
// them out anew when the next comes, which holds up every change of selection.
import { createCache } from 'ant-design-vue'

export function keptStyles() {
  const cache = createCache()
  const update = cache.update.bind(cache)
  cache.update = (keys, count) =>
    update(keys, (was) => {
      const next = count(was)
      // Uses are counted; one that never ends keeps the count above nothing.
      return !was && next ? [next[0] + 1, next[1] as unknown] : next
    })
  return cache
}
