package server

import (
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Without the pass phrase nothing is told; with it a cookie is given that no script reads.
func TestThePassPhraseIsAskedFor(t *testing.T) {
	hash, err := HashPass(" quince and medlar\n")
	require.NoError(t, err)
	assert.NotContains(t, hash, "quince")
	srv := httptest.NewServer(handler(t, Config{Pass: hash}))
	defer srv.Close()
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	client := &http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	get := func(path string) (int, string) {
		res, err := client.Get(srv.URL + path)
		require.NoError(t, err)
		defer func() { _ = res.Body.Close() }()
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res.StatusCode, string(raw)
	}
	post := func(pass string) *http.Response {
		res, err := client.PostForm(srv.URL+"/api/session", url.Values{"pass": {pass}})
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		return res
	}
	for _, path := range []string{"/api/cards", "/api/events", "/api", "/api/pictures/1/preview"} {
		code, _ := get(path)
		assert.Equal(t, http.StatusUnauthorized, code, path)
	}
	code, page := get("/")
	assert.Equal(t, http.StatusUnauthorized, code)
	assert.Contains(t, page, "Pass phrase")
	assert.Equal(t, http.StatusUnauthorized, post("apple and pear").StatusCode)
	res := post("quince and medlar")
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	cookie := res.Cookies()[0]
	assert.True(t, cookie.HttpOnly && cookie.SameSite == http.SameSiteStrictMode && len(cookie.Value) >= 26)
	code, _ = get("/api/cards")
	assert.Equal(t, http.StatusOK, code)

	// Another site's page may not act, cookie or not.
	req, err := http.NewRequestWithContext(t.Context(), http.MethodPost, srv.URL+"/api/cards", strings.NewReader("{}"))
	require.NoError(t, err)
	req.Header.Set("Sec-Fetch-Site", "cross-site")
	res, err = client.Do(req)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

func TestTriesAreLimitedByAddress(t *testing.T) {
	hash, err := HashPass("quince and medlar")
	require.NoError(t, err)
	now := time.UnixMilli(1_790_000_000_000)
	g := newGate(hash, func() time.Time { return now })
	for range freeTries {
		token, err := g.open("10.0.0.7", "apple")
		require.NoError(t, err)
		assert.Empty(t, token)
	}
	_, err = g.open("10.0.0.7", "quince and medlar")
	require.ErrorIs(t, err, errWait, "the right one, too")
	token, err := g.open("10.0.0.8", "quince and medlar")
	require.NoError(t, err)
	assert.NotEmpty(t, token, "others are not kept waiting")
	now = now.Add(firstWait + time.Second)
	token, err = g.open("10.0.0.7", "quince and medlar")
	require.NoError(t, err)
	req := httptest.NewRequest(http.MethodGet, "/", nil)
	req.AddCookie(&http.Cookie{Name: cookieName, Value: token})
	assert.True(t, g.knows(req))
	now = now.Add(sessionLasts)
	assert.False(t, g.knows(req), "a session ends")
	_, err = HashPass("plum")
	assert.ErrorContains(t, err, "at least 8 letters")
}
