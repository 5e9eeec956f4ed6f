package browser

import (
	"fmt"
	"strings"
	"sync"

	"github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/runtime"
)

// console keeps what a page writes to the browser's console: warnings of the page and of
// the browser, and errors that nobody caught.
type console struct {
	mu    sync.Mutex
	lines []string
}

func (c *console) hear(ev any) {
	switch e := ev.(type) {
	case *runtime.EventConsoleAPICalled:
		var words []string
		for _, a := range e.Args {
			if text := string(a.Value); text != "" {
				words = append(words, text)
			} else {
				words = append(words, a.Description)
			}
		}
		c.add(fmt.Sprintf("%s: %s", e.Type, strings.Join(words, " ")))
	case *runtime.EventExceptionThrown:
		text := e.ExceptionDetails.Text
		if x := e.ExceptionDetails.Exception; x != nil {
			text += " " + x.Description
		}
		c.add("not caught: " + text)
	case *log.EventEntryAdded:
		// That the program refused something is an answer, which the page has to tell itself;
		// how fast the driver reads back what was drawn is no matter of the page.
		if e.Entry.Source == log.EntrySourceNetwork || strings.Contains(e.Entry.Text, "GPU stall due to ReadPixels") {
			return
		}
		c.add(fmt.Sprintf("%s: %s %s", e.Entry.Level, e.Entry.Text, e.Entry.URL))
	}
}

func (c *console) add(line string) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.lines = append(c.lines, line)
}

// Console is what the page has written to the browser's console since it was opened.
func (p *Page) Console() []string {
	p.console.mu.Lock()
	defer p.console.mu.Unlock()
	return append([]string(nil), p.console.lines...)
}
