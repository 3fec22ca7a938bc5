package syntax

import (
	"strings"

	"jantel/core/model"
)

// requestVerbs are calls that send a request, with the method each uses; "?"
// stands for one that is told by an argument.
var requestVerbs = map[string]string{
	"get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "delete": "DELETE", "head": "HEAD", "del": "DELETE", "getJSON": "GET",
	"GetAsync": "GET", "PostAsync": "POST", "PutAsync": "PUT", "PatchAsync": "PATCH", "DeleteAsync": "DELETE",
	"GetFromJsonAsync": "GET", "PostAsJsonAsync": "POST", "PutAsJsonAsync": "PUT", "GetStringAsync": "GET",
	"getForObject": "GET", "getForEntity": "GET", "postForObject": "POST", "postForEntity": "POST", "Get": "GET",
	"Post": "POST", "PostForm": "POST", "Head": "HEAD",
	"NewRequest": "?", "NewRequestWithContext": "?", "open": "?", "request": "?", "exchange": "?", "ajax": "?"}

// bareRequests are called on nothing.
var bareRequests = Set("fetch", "axios", "got", "ky", "useFetch", "useSWR", "request", "superagent")

// clients are what requests are sent through, by the habit of names.
var clients = Set(
	"axios", "http", "https", "client", "api", "got", "ky", "superagent", "request", "requests", "httpx", "session",
	"jQuery", "rest", "restTemplate", "webClient", "httpClient", "HttpClient", "Http", "HTTP", "HTTParty", "Faraday", "conn", "connection",
	"agent", "apiClient", "instance", "http_client", "httpclient", "axiosInstance", "fetcher", "xhr", "ua",
	"test_client", "testClient", "RestClient", "Net", "window", "self", "this", "")

// request keeps a call that sends a request: on a client, by the name of its
// verb, or a bare one.
func (t *traiter) request(i int, name string, args [][2]int) {
	s := t.s
	method, verb := requestVerbs[name]
	on := t.receiver(i)
	bare := bareRequests[name] && pages[on]
	sends := verb && clients[on] && (on != "" || name == "getJSON" || name == "ajax")
	// this.get(…) could be anything.
	if !bare && !sends || on == "this" && name != "request" || on == "self" {
		return
	}
	at := 0
	switch {
	case bare:
		method = ""
	case method == "?":
		if method, at = t.methodAmong(args); method == "" && !s.Is(args[0][0], "{") {
			return
		}
	}
	pattern := ""
	if s.Is(args[at][0], "{") { // {url: "/lots", method: "POST"}
		for _, a := range s.Args(args[at][0]) {
			switch s.Text(a[0]) {
			case "url", "path":
				pattern = t.pattern([2]int{a[0] + 2, a[1]})
			case "method", "type":
				method = t.methodAt(a[0]+2, method)
			}
		}
	} else {
		pattern = t.pattern(args[at])
	}
	if bare && len(args) > 1 && s.Is(args[1][0], "{") {
		for _, a := range s.Args(args[1][0]) {
			if s.Is(a[0], "method") {
				method = t.methodAt(a[0]+2, method)
			}
		}
	}
	if bare && method == "" {
		method = "GET"
	}
	t.sent(method, pattern, s.Line(i))
}

// pages are what bare requests may be called on: the page itself.
var pages = Set("", "window", "this", "globalThis")

// methodAt is the method written at a token, or what it was so far.
func (t *traiter) methodAt(i int, soFar string) string {
	if text, ok := t.text(i); ok {
		return strings.ToUpper(text)
	}
	return soFar
}

// methodAmong is the method that one of the arguments names, with the argument
// behind it, which is the address.
func (t *traiter) methodAmong(args [][2]int) (method string, address int) {
	for n, a := range args[:len(args)-1] {
		if text, ok := t.text(a[0]); ok && a[1] == a[0]+1 && Methods[strings.ToLower(text)] != "" {
			return strings.ToUpper(text), n + 1
		}
		if t.s.Match(a[0], "http", ".") {
			if m, ok := strings.CutPrefix(t.s.Text(a[0]+2), "Method"); ok {
				return strings.ToUpper(m), n + 1
			}
		}
	}
	return "", 0
}

// sent keeps a request whose address reads like one.
func (t *traiter) sent(method, pattern string, line int) {
	host := ""
	if head, rest, ok := strings.Cut(pattern, "://"); ok && len(head) < 8 {
		h, path, _ := strings.Cut(rest, "/")
		pattern = "/" + path
		if isElsewhere(h) {
			host = h
		}
	} else if rest, ok := strings.CutPrefix(pattern, "*/"); ok {
		pattern = "/" + rest // the address of the server is put in
	}
	pattern, _, _ = strings.Cut(pattern, "?")
	reads := strings.HasPrefix(pattern, "/") && !strings.HasPrefix(pattern, "//") && !strings.ContainsAny(pattern, " \n\\<>|")
	if reads && len(t.f.Calls) < maxTraits {
		t.f.Calls = append(t.f.Calls, model.CallFact{Method: method, Pattern: pattern, Line: line, Host: host})
	}
}

// isElsewhere reports whether a host is a place of its own: not this machine,
// not one that is put in.
func isElsewhere(host string) bool {
	name, _, _ := strings.Cut(host, ":")
	return !strings.Contains(host, "*") && strings.Contains(name, ".") && name != "127.0.0.1"
}
