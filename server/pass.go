package server

import (
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/base64"
	"errors"
	"fmt"
	"net"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
	"golang.org/x/crypto/argon2"
)

// A program that others can reach asks for a pass phrase. Its hash is Argon2id with the
// second recommended option of RFC 9106, section 4; who knows the phrase gets a cookie with
// a random token, of which only the SHA-256 is remembered, until the program ends.

// Parameters of Argon2id: passes, KiB of memory, lanes, and the length of the key.
const (
	argonPasses = 3
	argonMemory = 64 << 10
	argonLanes  = 4
	argonKey    = 32
	saltBytes   = 16
)

// LeastPass is how many letters a pass phrase has at least.
const LeastPass = 8

// HashPass returns the hash of a pass phrase as it is kept. The error is written for the
// person: the phrase is too short.
func HashPass(phrase string) (string, error) {
	phrase = strings.TrimSpace(phrase)
	if len([]rune(phrase)) < LeastPass {
		return "", fmt.Errorf("a pass phrase has at least %d letters", LeastPass)
	}
	salt := make([]byte, saltBytes)
	_, _ = rand.Read(salt) // never fails: crypto/rand panics instead
	return "argon2id$" + base64.RawStdEncoding.EncodeToString(append(salt, passKey(phrase, salt)...)), nil
}

func passKey(phrase string, salt []byte) []byte {
	return argon2.IDKey([]byte(phrase), salt, argonPasses, argonMemory, argonLanes, argonKey)
}

// passIs reports whether a hash is that of a phrase.
func passIs(hash, phrase string) bool {
	coded, ok := strings.CutPrefix(hash, "argon2id$")
	raw, err := base64.RawStdEncoding.DecodeString(coded)
	if !ok || err != nil || len(raw) != saltBytes+argonKey {
		return false
	}
	return subtle.ConstantTimeCompare(passKey(strings.TrimSpace(phrase), raw[:saltBytes]), raw[saltBytes:]) == 1
}

// gate lets in who has shown the pass phrase.
type gate struct {
	hash string
	now  func() time.Time

	checking sync.Mutex // one phrase at a time: checking one takes much memory
	mu       sync.Mutex
	tokens   map[[32]byte]time.Time // until when
	failed   map[string]failures    // by address
}

type failures struct {
	n     int
	until time.Time // no try before
}

// What a session lasts, how many there are, and after how many wrong phrases an address has
// to wait, longer each time.
const (
	sessionLasts = 30 * 24 * time.Hour
	maxSessions  = 200
	freeTries    = 5
	firstWait    = 10 * time.Second
	longestWait  = 15 * time.Minute
	cookieName   = "sectilis"
)

func newGate(hash string, now func() time.Time) *gate {
	return &gate{hash: hash, now: now, tokens: map[[32]byte]time.Time{}, failed: map[string]failures{}}
}

// errWait is for an address that has tried too often.
var errWait = errors.New("too many wrong pass phrases were tried")

// open returns a token for who knows the phrase; "" if it is wrong.
func (g *gate) open(from, phrase string) (string, error) {
	g.mu.Lock()
	f := g.failed[from]
	g.mu.Unlock()
	if wait := f.until.Sub(g.now()); wait > 0 {
		return "", fmt.Errorf("%w; wait %.0f seconds", errWait, wait.Seconds()+1)
	}
	g.checking.Lock()
	ok := len(phrase) <= 1000 && passIs(g.hash, phrase)
	g.checking.Unlock()
	g.mu.Lock()
	defer g.mu.Unlock()
	if !ok {
		if len(g.failed) > 10_000 {
			clear(g.failed)
		}
		f = g.failed[from]
		if f.n++; f.n >= freeTries {
			f.until = g.now().Add(min(firstWait<<min(f.n-freeTries, 10), longestWait))
		}
		g.failed[from] = f
		return "", nil
	}
	delete(g.failed, from)
	if len(g.tokens) >= maxSessions {
		clear(g.tokens)
	}
	token := rand.Text()
	g.tokens[sha256.Sum256([]byte(token))] = g.now().Add(sessionLasts)
	return token, nil
}

// knows reports whether a request has a token that was given out.
func (g *gate) knows(r *http.Request) bool {
	c, err := r.Cookie(cookieName)
	if err != nil {
		return false
	}
	g.mu.Lock()
	defer g.mu.Unlock()
	until, ok := g.tokens[sha256.Sum256([]byte(c.Value))]
	return ok && g.now().Before(until)
}

// passed lets requests through that have shown the pass phrase, and asks all others for it.
func (s *server) passed(c *gin.Context) {
	if s.gate == nil || s.gate.knows(c.Request) {
		c.Next()
		return
	}
	switch name := c.Request.URL.Path; {
	case name == "/api/session" && c.Request.Method == http.MethodPost:
		s.session(c)
	case strings.HasPrefix(name, "/api"):
		problem(c, http.StatusUnauthorized, "pass", "Show the pass phrase first: load the page anew.", "")
	default:
		c.Header("Cache-Control", "no-store")
		c.Data(http.StatusUnauthorized, "text/html; charset=utf-8", []byte(askPage("")))
	}
	c.Abort()
}

// session takes the pass phrase from the form of the page that asks for it.
func (s *server) session(c *gin.Context) {
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 4096)
	from, _, err := net.SplitHostPort(c.Request.RemoteAddr)
	if err != nil {
		from = c.Request.RemoteAddr
	}
	c.Header("Cache-Control", "no-store")
	token, err := s.gate.open(from, c.PostForm("pass"))
	switch {
	case err != nil:
		c.Data(http.StatusTooManyRequests, "text/html; charset=utf-8", []byte(askPage("Too many wrong pass phrases: wait a while, then try again.")))
	case token == "":
		c.Data(http.StatusUnauthorized, "text/html; charset=utf-8", []byte(askPage("That is not the pass phrase.")))
	default:
		http.SetCookie(c.Writer, &http.Cookie{Name: cookieName, Value: token, Path: "/", MaxAge: int(sessionLasts.Seconds()),
			HttpOnly: true, SameSite: http.SameSiteStrictMode, Secure: c.Request.TLS != nil})
		c.Redirect(http.StatusSeeOther, "/")
	}
}

// askPage asks for the pass phrase; wrong says why it asks again.
func askPage(wrong string) string {
	return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Sectilis</title><style>body{margin:0;height:100vh;display:grid;place-items:center;background:#f5efe4;color:#1f2b38;font:15px/1.5 system-ui,sans-serif}
form{background:#fffdf9;border:1px solid #d8c9af;border-radius:6px;padding:28px 32px;width:300px;box-shadow:0 2px 6px #0002}
h1{margin:0 0 4px;font:600 24px Georgia,serif;color:#a8432a}label{display:block;margin:14px 0 4px;color:#41505f}
input{box-sizing:border-box;width:100%;padding:8px;font:inherit;border:1px solid #a9b0b5;border-radius:6px}
button{margin-top:14px;padding:8px 18px;font:inherit;border:0;border-radius:6px;background:#a8432a;color:#fff}p{margin:10px 0 0;color:#a3282b}</style>
<form method="post" action="/api/session"><h1>Sectilis</h1><label for="pass">Pass phrase</label>
<input id="pass" name="pass" type="password" autocomplete="current-password" autofocus required>` + said(wrong) + `<br><button>Open</button></form></html>`
}

func said(wrong string) string {
	if wrong == "" {
		return ""
	}
	return `<p role="alert">` + wrong + `</p>`
}
