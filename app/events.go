package app

import "sync"

// EventKind is what an event is about.
type EventKind string

// What events are about.
const (
	TableEvent  EventKind = "table"
	CardEvent   EventKind = "card"
	JobEvent    EventKind = "job"
	StocksEvent EventKind = "stocks" // a stock is another
	// AssemblyEvent is that a step of a card is done, or is no more.
	AssemblyEvent EventKind = "assembly"
	InksEvent     EventKind = "inks" // what is known of the printer's inks is another
)

// Event is something that clients are told of as it happens.
type Event struct {
	Kind     EventKind `json:"kind"`
	Card     string    `json:"card,omitempty"`
	Revision int64     `json:"revision,omitempty"`
	Job      *Job      `json:"job,omitempty"`
}

// Hub passes events on to everyone who listens.
type Hub struct {
	mu        sync.Mutex
	listeners map[chan Event]bool
}

func newHub() *Hub { return &Hub{listeners: map[chan Event]bool{}} }

// Listen returns a channel of events and a function that ends it. A listener
// that does not keep up misses events; it is told the next one.
func (h *Hub) Listen() (<-chan Event, func()) {
	c := make(chan Event, 256)
	h.mu.Lock()
	h.listeners[c] = true
	h.mu.Unlock()
	return c, func() {
		h.mu.Lock()
		defer h.mu.Unlock()
		if h.listeners[c] {
			delete(h.listeners, c)
			close(c)
		}
	}
}

func (h *Hub) send(e Event) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.listeners {
		select {
		case c <- e:
		default:
		}
	}
}
