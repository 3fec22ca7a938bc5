package smells_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
)

// stack writes the parts of a service in layers in one language.
type stack struct {
	use    string // takes another file in, by its folder and name
	handle string // answers a request
	reckon string // a rule
	keep   string // asks the store
	outer  string // takes in what answers requests
	head   string
}

var stacks = map[string]stack{
	".ts": {
		use: "import * as %[2]s from '../%[1]s/%[2]s'\n", handle: "export function list%[1]s(req, res) {\n  res.json([])\n}\n",
		reckon: "export function weigh%[1]s(grams: number) {\n  return grams * 2\n}\n",
		keep:   "export const rows%[1]s = () => db.query('SELECT id FROM lots WHERE id = 1')\n",
		outer:  "import express from 'express'\n",
	},
	".py": {
		use: "from src.%[1]s.%[2]s import *\n", handle: "from django.http import JsonResponse\nfrom django.views import View\n\n\nclass %[1]sView(View):\n    def get(self, request):\n        return JsonResponse({})\n",
		reckon: "def weigh%[1]s(grams):\n    return grams * 2\n",
		keep:   "def rows%[1]s(db):\n    return db.execute('SELECT id FROM lots WHERE id = 1')\n",
		outer:  "from flask import request\n",
	},
	".php": {
		use: "require_once __DIR__ . '/../%[1]s/%[2]s.php';\n", head: "<?php\n",
		handle: "class %[1]sController extends AbstractController {\n    public function list($request) {\n        return $this->json([]);\n    }\n}\n",
		reckon: "function weigh%[1]s($grams) {\n    return $grams * 2;\n}\n",
		keep:   "function rows%[1]s($db) {\n    return $db->query('SELECT id FROM lots WHERE id = 1');\n}\n",
		outer:  "use Illuminate\\Http\\Request;\n",
	},
}

// service are features in layers: what answers needs the rules, and those need the
// store. more says what else a file takes in, by its path without its ending.
type service struct {
	stack
	ext   string
	names []string
	more  map[string]string
	extra string
}

func (l *tongue) service(r *rand.Rand, n int) *service {
	s, ok := stacks[l.ext]
	if !ok {
		return nil
	}
	names := slices.Clone(words(32))
	r.Shuffle(len(names), func(i, j int) { names[i], names[j] = names[j], names[i] })
	return &service{stack: s, ext: l.ext, names: names[:n], more: map[string]string{}}
}

func upper(w string) string { return strings.ToUpper(w[:1]) + w[1:] }

// at is a file of a layer.
func (s *service) at(layer, name string) string { return "src/" + layer + "/" + name + s.ext }

func (s *service) file(layer, name, body string) string {
	key := layer + "/" + name
	return fmt.Sprintf("-- %s --\n%s%s\n%s", s.at(layer, name), s.head, s.more[key], fmt.Sprintf(body, upper(name)))
}

func (s *service) tree() string {
	var b strings.Builder
	for _, n := range s.names {
		s.more["handlers/"+n] += fmt.Sprintf(s.use, "logic", n+"_service")
		s.more["logic/"+n+"_service"] += fmt.Sprintf(s.use, "data", n+"_store")
		b.WriteString(s.file("handlers", n, s.handle) + s.file("logic", n+"_service", s.reckon) + s.file("data", n+"_store", s.keep))
	}
	return b.String() + s.extra
}

// layered plants something in a service of so many features.
func layered(rule string, features int, whole func(s *service, r *rand.Rand, fault bool) (tree, at string)) plant {
	return plant{rule: rule, whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		s := l.service(r, features)
		if s == nil {
			return "", ""
		}
		return whole(s, r, fault)
	}}
}

// parts are files in folders that take each other in.
func (l *tongue) parts(r *rand.Rand, needs map[string][]string, at func(name string) string) string {
	s, ok := stacks[l.ext]
	if !ok {
		return ""
	}
	names := map[string]bool{}
	for from, to := range needs {
		names[from] = true
		for _, n := range to {
			names[n] = true
		}
	}
	all := make([]string, 0, len(names))
	for n := range names {
		all = append(all, n)
	}
	slices.Sort(all)
	var b strings.Builder
	for _, n := range all {
		fmt.Fprintf(&b, "-- %s --\n%s", at(n)+l.ext, s.head)
		for _, to := range needs[n] {
			p := at(to)
			cut := strings.LastIndexByte(p, '/')
			fmt.Fprintf(&b, s.use, strings.TrimPrefix(p[:cut], "src/"), p[cut+1:])
		}
		fmt.Fprintf(&b, "\n"+s.reckon, upper(strings.NewReplacer("/", "", "_", "").Replace(n)))
		if r.IntN(2) == 0 {
			fmt.Fprintf(&b, "\n"+s.reckon, "More"+upper(strings.NewReplacer("/", "", "_", "").Replace(n)))
		}
	}
	return b.String()
}

// inFolders reads a name such as vault/lid as a file below src.
func inFolders(name string) string { return "src/" + name }

func init() {
	wholes = append(wholes,
		layered("layer-skipped", 6, func(s *service, r *rand.Rand, fault bool) (string, string) {
			s.more["handlers/odd"] = pick(fault, fmt.Sprintf(s.use, "data", s.names[r.IntN(6)]+"_store"), fmt.Sprintf(s.use, "logic", s.names[r.IntN(6)]+"_service"))
			s.extra = s.file("handlers", "odd", s.handle)
			return s.tree(), s.at("handlers", "odd")
		}),
		layered("upward-link", 6, func(s *service, r *rand.Rand, fault bool) (string, string) {
			n := s.names[r.IntN(6)]
			s.more["logic/"+n+"_service"] = pick(fault, fmt.Sprintf(s.use, "handlers", n), fmt.Sprintf(s.use, "logic", s.names[(slices.Index(s.names, n)+1)%6]+"_service"))
			return s.tree(), s.at("logic", n+"_service")
		}),
		layered("inner-layer-framework", 6, func(s *service, r *rand.Rand, fault bool) (string, string) {
			n := s.names[r.IntN(6)]
			s.more[pick(fault, "logic/"+n+"_service", "handlers/"+n)] = s.outer
			if s.ext == ".php" {
				s.extra = "-- composer.json --\n{\"require\": {\"laravel/framework\": \"^11\"}}\n"
			}
			return s.tree(), s.at("logic", n+"_service")
		}),
		layered("handler-does-work", 6, func(s *service, r *rand.Rand, fault bool) (string, string) {
			s.extra = s.file("handlers", "odd", s.handle+"\n"+pick(fault, s.keep, s.reckon))
			return s.tree(), s.at("handlers", "odd")
		}),
		layered("charter-breach", 4, func(s *service, r *rand.Rand, fault bool) (string, string) {
			n := s.names[r.IntN(4)]
			s.more[pick(fault, "data/"+n+"_store", "handlers/"+n)] = fmt.Sprintf(s.use, "logic", s.names[(slices.Index(s.names, n)+1)%4]+"_service")
			charter := "-- jantel.yaml --\nlayers:\n  - name: handlers\n    holds: [src/handlers]\n    may: [logic]\n  - name: logic\n    holds: [src/logic]\n" +
				"    may: [data]\n  - name: data\n    holds: [src/data]\n"
			return s.tree() + charter, s.at("data", n+"_store")
		}),
		layered("scattered-feature", 3, func(s *service, r *rand.Rand, fault bool) (string, string) {
			var b strings.Builder
			folders := []string{"routes", "handlers", "logic", "data", "pages", "state", "exports", "jobs", "letters"}
			for _, n := range s.names[1:] {
				for _, f := range folders[:3] {
					b.WriteString(s.file(f, n, s.reckon))
				}
			}
			for _, f := range folders[:pick(fault, 9, 4)] {
				b.WriteString(s.file(f, s.names[0], s.reckon))
			}
			return b.String(), "src"
		}),
		layered("part-missing", 8, func(s *service, r *rand.Rand, fault bool) (string, string) {
			odd := s.names[r.IntN(8)]
			var b strings.Builder
			for _, n := range s.names {
				b.WriteString(s.file("handlers", n, s.handle) + s.file("data", n+"_store", s.keep))
				if n != odd || !fault {
					b.WriteString(s.file("logic", n+"_service", s.reckon))
				}
			}
			return b.String(), "src"
		}),
		plant{rule: "folder-cycle", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			needs := map[string][]string{
				"vault/lid": {"drying/tray"}, "vault/box": {"vault/lid"}, "drying/room": {"drying/tray"}, "growers/card": {"vault/box"},
				"drying/tray": {"seeds/lot"}, "seeds/name": {"seeds/lot"},
			}
			if fault {
				needs[[]string{"seeds/name", "drying/room"}[r.IntN(2)]] = []string{"growers/card"}
				needs["drying/tray"] = append(needs["drying/tray"], "seeds/name")
				needs["seeds/lot"] = []string{"drying/room"}
			}
			return l.parts(r, needs, inFolders), "src"
		}},
		plant{rule: "hub", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			needs := map[string][]string{}
			for i := range 24 {
				needs[fmt.Sprintf("above/%s%c", words(32)[i], 'a'+r.IntN(20))] = []string{"middle/store"}
				if fault || i < 6 {
					needs["middle/store"] = append(needs["middle/store"], "below/"+words(32)[i])
				}
			}
			return l.parts(r, needs, inFolders), "src/middle/store" + l.ext
		}},
		plant{rule: "file-elsewhere", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			needs := map[string][]string{}
			for i := range 6 {
				needs["vault/odd"] = append(needs["vault/odd"], pick(fault || i > 2, "drying/", "vault/")+words(32)[i])
			}
			needs["vault/lid"], needs["vault/box"] = []string{"vault/seal"}, []string{"vault/seal"}
			needs["growers/card"] = []string{"vault/lid"}
			needs["drying/fan"] = []string{pick(fault, "vault/odd", "vault/lid")}
			return l.parts(r, needs, inFolders), "src/vault/odd" + l.ext
		}},
		plant{rule: "file-nobody-reaches", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			start := map[string]string{".ts": "import express from 'express'\n\nconst app = express()\napp.listen(1)\n", ".py": "\nif __name__ == '__main__':\n    weighMain(1)\n"}[l.ext]
			if start == "" {
				return "", "" // a server may open any file there
			}
			needs := map[string][]string{"app/main": {}}
			for i := range 14 {
				n := []string{"vault/", "drying/", "growers/"}[i%3] + words(32)[i] + "_service"
				if needs[n] = []string{"seeds/lot"}; i > 0 || !fault {
					needs["app/main"] = append(needs["app/main"], n)
				}
			}
			s := stacks[l.ext]
			return l.parts(r, needs, inFolders) + "-- src/boot/start" + l.ext + " --\n" + fmt.Sprintf(s.use, "app", "main") + start, "src/vault/" + words(32)[0] + "_service" + l.ext
		}},
	)
}
