package api

import (
	"crypto/hmac"
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/hex"
	"net"
	"net/http"
	"net/url"
	"path/filepath"
	"strings"

	"github.com/gin-gonic/gin"

	"capstan/core/words"
)

// cookieFor is the name of the session cookie at a host. Browsers give cookies to all ports of a host alike, so that two servers on one would
// overwrite each other's.
func cookieFor(host string) string {
	if _, port, err := net.SplitHostPort(host); err == nil {
		return "capstan-session-" + port
	}
	return "capstan-session"
}

// sessionOf is what the cookie holds: it belongs to the data folder by its secret, and to the token, or to there being none. Another token ends
// all sessions, and one of this machine alone opens nothing where a token is asked for.
func sessionOf(secret, token string) string {
	h := hmac.New(sha256.New, []byte(secret))
	if token == "" {
		h.Write([]byte("this machine alone"))
	} else {
		h.Write([]byte("token " + token))
	}
	return hex.EncodeToString(h.Sum(nil))
}

// SessionCookie returns the cookie of a browser that has loaded the page of a server on the data folder dir, which answers at host (with its port)
// and has a token or none.
func SessionCookie(dir, host, token string) (*http.Cookie, error) {
	secret, err := Secret(filepath.Join(dir, "session"))
	if err != nil {
		return nil, err
	}
	return &http.Cookie{Name: cookieFor(host), Value: sessionOf(secret, token)}, nil
}

// guard refuses requests that do not come from the page itself, and sets the headers every answer has.
func (s *Server) guard(c *gin.Context) {
	id := make([]byte, 6)
	if _, err := rand.Read(id); err == nil {
		c.Set("request", hex.EncodeToString(id))
	}
	h := c.Writer.Header()
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; "+
		"img-src 'self' blob: data:; media-src 'self' blob:; font-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'")
	if !s.answersTo(c.Request.Host) {
		refuse(c, "request.host")
		return
	}
	if origin := c.GetHeader("Origin"); origin != "" {
		if u, err := url.Parse(origin); err != nil || u.Host != c.Request.Host {
			refuse(c, "request.origin")
		}
	}
}

// answersTo tells whether a Host is one of this server's. Names are what a foreign site could point here, so only its own is
// taken; addresses in numbers are, where other machines may come at all.
func (s *Server) answersTo(host string) bool {
	if h, _, err := net.SplitHostPort(host); err == nil {
		host = h
	}
	if host == "localhost" {
		return true
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	if s.options.Token == "" {
		return ip != nil && ip.IsLoopback()
	}
	return ip != nil || host == s.options.Host
}

// known tells whether a browser has the session cookie.
func (s *Server) known(c *gin.Context) bool {
	v, err := c.Cookie(cookieFor(c.Request.Host))
	return err == nil && same(v, s.secret)
}

func same(a, b string) bool { return subtle.ConstantTimeCompare([]byte(a), []byte(b)) == 1 }

// session lets only browsers in that have been given the cookie with the page.
func (s *Server) session(c *gin.Context) {
	switch {
	case !s.known(c):
		refuse(c, "session")
	case s.store.ReadOnly() && c.Request.Method != http.MethodGet:
		refuse(c, "data.read-only", s.store.Dir())
	}
}

// admit gives the session cookie with the page. Where other machines reach this one, a browser has to bring the token the first
// time; it is then taken out of the address.
func (s *Server) admit(c *gin.Context) bool {
	if s.options.Token != "" && !s.known(c) {
		if !same(c.Query("token"), s.options.Token) {
			f := words.New("session.token")
			c.String(status(f.Key), f.Error())
			return false
		}
		s.giveCookie(c)
		c.Redirect(http.StatusSeeOther, c.Request.URL.Path)
		return false
	}
	s.giveCookie(c)
	return true
}

func (s *Server) giveCookie(c *gin.Context) {
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie(cookieFor(c.Request.Host), s.secret, 365*24*3600, "/", "", false, true)
}
