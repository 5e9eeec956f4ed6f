import { onMounted, ref } from 'vue'

/**
 * False until the page has had time to draw what matters first. What stands
 * round the work waits for it, so that the face is seen at once.
 */
export function useLater() {
  const later = ref(false)
  onMounted(() => {
    const show = () => (later.value = true)
    requestAnimationFrame(() =>
      'requestIdleCallback' in window ? requestIdleCallback(show, { timeout: 250 }) : setTimeout(show, 60),
    )
  })
  return later
}
