package syntax

import (
	"strings"

	"jantel/core/model"
)

// requestVerbs are calls that send a request, with the method each uses; "?"
// stands for one that is told by an argument.
var requestVerbs = map[string]string{"get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "delete": "DELETE", "head": "HEAD", "del": "DELETE", "getJSON": "GET",
	"GetAsync": "GET", "PostAsync": "POST", "PutAsync": "PUT", "PatchAsync": "PATCH", "DeleteAsync": "DELETE", "GetFromJsonAsync": "GET", "PostAsJsonAsync": "POST", "PutAsJsonAsync": "PUT", "GetStringAsync": "GET",
	"getForObject": "GET", "getForEntity": "GET", "postForObject": "POST", "postForEntity": "POST", "Get": "GET", "Post": "POST", "PostForm": "POST", "Head": "HEAD",
	"NewRequest": "?", "NewRequestWithContext": "?", "open": "?", "request": "?", "exchange": "?", "ajax": "?"}

// bareRequests are called on nothing.
var bareRequests = Set("fetch", "axios", "got", "ky", "useFetch", "useSWR", "request", "superagent")

// clients are what requests are sent through, by the habit of names.
var clients = Set("axios", "http", "https", "client", "api", "got", "ky", "superagent", "request", "requests", "httpx", "session", "jQuery", "rest", "restTemplate", "webClient", "httpClient", "HttpClient", "Http", "HTTP", "HTTParty", "Faraday", "conn", "connection",
	"agent", "apiClient", "instance", "http_client", "httpclient", "axiosInstance", "fetcher", "xhr", "ua", "test_client", "testClient", "RestClient", "Net", "window", "self", "this", "")

func (t *traiter) request(i int, name string, args [][2]int) {
	s := t.s
	method, verb := requestVerbs[name]
	on := t.receiver(i)
	bare := bareRequests[name] && (on == "" || on == "window" || on == "this" || on == "globalThis")
	if !bare && (!verb || !clients[on] || on == "" && name != "getJSON" && name != "ajax") {
		return
	}
	if on == "this" && name != "request" || on == "self" {
		return // this.get(…) could be anything
	}
	at := 0
	switch {
	case bare:
		method = ""
	case method == "?":
		method = ""
		for n, a := range args {
			if text, ok := t.text(a[0]); ok && a[1] == a[0]+1 && Methods[strings.ToLower(text)] != "" && n+1 < len(args) {
				method, at = strings.ToUpper(text), n+1
				break
			}
			if s.Match(a[0], "http", ".") && strings.HasPrefix(s.Text(a[0]+2), "Method") && n+1 < len(args) {
				method, at = strings.ToUpper(strings.TrimPrefix(s.Text(a[0]+2), "Method")), n+1
				break
			}
		}
		if method == "" && !s.Is(args[0][0], "{") {
			return
		}
	}
	pattern := ""
	if s.Is(args[at][0], "{") { // {url: "/lots", method: "POST"}
		for _, a := range s.Args(args[at][0]) {
			switch key := s.Text(a[0]); key {
			case "url", "path":
				pattern = t.pattern([2]int{a[0] + 2, a[1]})
			case "method", "type":
				if text, ok := t.text(a[0] + 2); ok {
					method = strings.ToUpper(text)
				}
			}
		}
	} else {
		pattern = t.pattern(args[at])
	}
	if bare && len(args) > 1 && s.Is(args[1][0], "{") {
		for _, a := range s.Args(args[1][0]) {
			if text, ok := t.text(a[0] + 2); ok && s.Is(a[0], "method") {
				method = strings.ToUpper(text)
			}
		}
	}
	if bare && method == "" {
		method = "GET"
	}
	t.sent(method, pattern, s.Line(i))
}

// sent keeps a request whose address reads like one.
func (t *traiter) sent(method, pattern string, line int) {
	host := ""
	if head, rest, ok := strings.Cut(pattern, "://"); ok && len(head) < 8 {
		h, path, _ := strings.Cut(rest, "/")
		pattern = "/" + path
		bareHost, _, _ := strings.Cut(h, ":")
		if !strings.Contains(h, "*") && bareHost != "localhost" && bareHost != "127.0.0.1" && strings.Contains(bareHost, ".") {
			host = h
		}
	} else if rest, ok := strings.CutPrefix(pattern, "*/"); ok {
		pattern = "/" + rest // the address of the server is put in
	}
	pattern, _, _ = strings.Cut(pattern, "?")
	if !strings.HasPrefix(pattern, "/") || strings.ContainsAny(pattern, " \n\\<>|") || strings.HasPrefix(pattern, "//") || len(t.f.Calls) >= maxTraits {
		return
	}
	t.f.Calls = append(t.f.Calls, model.CallFact{Method: method, Pattern: pattern, Line: line, Host: host})
}
