package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"
	"sync"
	"time"
)

// event is one thing that happened, for all open pages.
type event struct {
	id   int64
	name string
	data []byte
}

// hub hands events to every listener and keeps the newest for those who come
// back after a break.
type hub struct {
	mu      sync.Mutex
	next    int64
	recent  []event
	readers map[chan event]bool
	closed  bool
}

const keptEvents = 500

func newHub() *hub {
	// Ids go on rising after a restart, so that a page's last id stays below.
	return &hub{next: time.Now().UnixMilli(), readers: map[chan event]bool{}}
}

func (h *hub) send(name string, data any) {
	b, err := json.Marshal(data)
	if err != nil {
		return
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	h.next++
	e := event{h.next, name, b}
	h.recent = append(h.recent, e)
	if len(h.recent) > keptEvents {
		h.recent = h.recent[len(h.recent)-keptEvents:]
	}
	for ch := range h.readers {
		select {
		case ch <- e:
		default: // too slow: it comes back and asks for what it missed
			delete(h.readers, ch)
			close(ch)
		}
	}
}

func (h *hub) listen(after int64) (ch chan event, missed []event) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.closed {
		return nil, nil
	}
	for _, e := range h.recent {
		if after > 0 && e.id > after {
			missed = append(missed, e)
		}
	}
	ch = make(chan event, 64)
	h.readers[ch] = true
	return ch, missed
}

func (h *hub) leave(ch chan event) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.readers[ch] {
		delete(h.readers, ch)
		close(ch)
	}
}

func (h *hub) close() {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.closed = true
	for ch := range h.readers {
		delete(h.readers, ch)
		close(ch)
	}
}

// events streams what happens as server-sent events.
func (s *Server) events(w http.ResponseWriter, r *http.Request) {
	after, _ := strconv.ParseInt(r.Header.Get("Last-Event-ID"), 10, 64)
	ch, missed := s.hub.listen(after)
	if ch == nil {
		problem(w, http.StatusServiceUnavailable, "the server is stopping")
		return
	}
	defer s.hub.leave(ch)
	w.Header().Set("Content-Type", "text/event-stream")
	w.Header().Set("Cache-Control", "no-store")
	c := http.NewResponseController(w)
	write := func(e event) bool {
		_, err := fmt.Fprintf(w, "id: %d\nevent: %s\ndata: %s\n\n", e.id, e.name, e.data)
		return err == nil && c.Flush() == nil
	}
	if _, err := fmt.Fprint(w, "retry: 1000\n\n"); err != nil || c.Flush() != nil {
		return
	}
	for _, e := range missed {
		if !write(e) {
			return
		}
	}
	beat := time.NewTicker(20 * time.Second)
	defer beat.Stop()
	for {
		select {
		case e, ok := <-ch:
			if !ok || !write(e) {
				return
			}
		case <-beat.C:
			if _, err := fmt.Fprint(w, ": still here\n\n"); err != nil || c.Flush() != nil {
				return
			}
		case <-r.Context().Done():
			return
		}
	}
}
