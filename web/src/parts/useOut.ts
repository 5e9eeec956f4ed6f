// What goes out of the program while pieces have no room on any sheet: it is said what
// would be missing, and asked.
import { Modal } from 'ant-design-vue'
import { useMachine } from '../store/machine'
import { useSheets } from '../store/sheets'

export function useOut() {
  const sheets = useSheets()
  const machine = useMachine()

  /** Whether nothing is missing, or a person takes the sheets without. */
  function whole(what: string): Promise<boolean> {
    const missing = sheets.layout?.unlaid ?? []
    if (!missing.length) return Promise.resolve(true)
    const names = missing.slice(0, 4).map((p) => `“${p.name}”`)
    if (missing.length > 4) names.push(`${missing.length - 4} more`)
    return new Promise((done) =>
      Modal.confirm({
        title: missing.length === 1 ? 'A piece is on no sheet' : `${missing.length} pieces are on no sheet`,
        content: `${names.join(', ')}: there is no room on the paper. Sheets says why, and what would fit.`,
        okText: `${what} without`,
        cancelText: 'Not yet',
        icon: null,
        width: 420,
        autoFocusButton: 'cancel',
        okButtonProps: { 'data-testid': 'out-without' } as object,
        cancelButtonProps: { 'data-testid': 'out-not-yet' } as object,
        onOk: () => done(true),
        onCancel: () => done(false),
      }),
    )
  }

  /** Of a link to a file: it is followed at once, or once a person has said so. */
  async function ask(e: MouseEvent) {
    const link = (e.currentTarget as HTMLElement).closest('a')
    if (!link || !sheets.layout?.unlaid.length) return
    e.preventDefault()
    if (!(await whole('Take it'))) return
    const url = new URL(link.href)
    url.searchParams.set('without', '1')
    window.location.assign(url)
  }

  async function print() {
    if (await whole('Print')) await machine.start(sheets.layout?.unlaid.length ? 'printWithout' : 'print')
  }

  return { ask, print }
}
