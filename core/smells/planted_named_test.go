package smells_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
)

// sent is a request, and answered a server that answers one, in a language's own way.
var (
	sent = map[string]string{
		".ts":  "export const send = () => fetch('/api/%s', { method: 'POST' })\n",
		".py":  "import requests\n\n\ndef send():\n    return requests.post('/api/%s')\n",
		".php": "<?php\nfunction send($client) {\n    return $client->post('/api/%s');\n}\n",
	}
	answered = map[string]string{
		".ts":  "import express from 'express'\nconst app = express()\napp.post('/api/%s', (req, res) => res.json({}))\n",
		".py":  "from flask import Flask\n\napp = Flask(__name__)\n\n\n@app.post('/api/%s')\ndef take():\n    return {}\n",
		".php": "<?php\n$app = \\Slim\\Factory\\AppFactory::create();\n$app->post('/api/%s', function ($request, $response) {\n    return $response;\n});\n",
	}
)

func init() {
	wholes = append(wholes,
		plant{rule: "route-form", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if answered[l.ext] == "" {
				return "", ""
			}
			verb, at := []string{"add", "get", "delete", "update"}[r.IntN(4)], "src/server"+l.ext
			return "-- " + at + " --\n" + fmt.Sprintf(answered[l.ext], "lots/"+pick(fault, verb, "labels")), at
		}},
		plant{rule: "call-without-route", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if answered[l.ext] == "" {
				return "", ""
			}
			thing, at := words(32)[r.IntN(20)], "src/desk/client"+l.ext
			tree := "-- src/server" + l.ext + " --\n" + fmt.Sprintf(answered[l.ext], thing)
			// Where nothing that is sent is answered the server is another's.
			tree += "-- src/desk/other" + l.ext + " --\n" + fmt.Sprintf(sent[l.ext], thing)
			return tree + "-- " + at + " --\n" + fmt.Sprintf(sent[l.ext], pick(fault, thing+"/sheets", thing)), at
		}},
		plant{rule: "cryptic-name", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if l.namedForType() {
				return "", "" // functions stand in classes there
			}
			at := "src/vault/lid" + l.ext
			name := pick(fault, []string{"wq", "zx", "kf"}[r.IntN(3)], []string{"go", "up", "wash"}[r.IntN(3)])
			return l.source(r, at, 6, name) + l.folder(r, "src/growers/%s", 4), at
		}},
		plant{rule: "unused-export", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			if l.ext != ".ts" {
				return "", "" // what is handed out is not written out, or not taken by name
			}
			names, at := []string{"weigh", "sort", "count", "label"}, "src/vault/lid.ts"
			r.Shuffle(len(names), func(i, j int) { names[i], names[j] = names[j], names[i] })
			taken := names[:pick(fault, 2, 3)]
			user := fmt.Sprintf("-- src/growers/card.ts --\nimport { %s } from '../vault/lid'\nexport function open() {\n  return [%s]\n}\n",
				strings.Join(taken, ", "), strings.Join(taken, ", "))
			return l.source(r, at, 3, names...) + user + "-- src/app.ts --\nimport { open } from './growers/card'\nopen()\n", at
		}},
		plant{rule: "namespace-against-path", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
			form := map[string]string{
				".java": "-- src/main/java/vault/%[1]s/%[2]s.java --\npackage vault.%[3]s;\n\npublic class %[2]s {\n  int grams;\n}\n",
				".php":  "-- src/%[1]s/%[2]s.php --\n<?php\n\nnamespace Vault\\%[3]s;\n\nclass %[2]s\n{\n    public $grams;\n}\n",
			}[l.ext]
			if form == "" {
				return "", ""
			}
			var b strings.Builder
			odd := r.IntN(9)
			at := ""
			for i := range 9 {
				folder, name := []string{"Drying", "Shelves", "Growers"}[i%3], upper(words(32)[i])
				said := folder
				if i == odd {
					at = strings.Fields(fmt.Sprintf(form, folder, name, said))[1]
					said = pick(fault, "Letters", folder)
				}
				fmt.Fprintf(&b, form, folder, name, said)
			}
			if l.ext == ".php" {
				b.WriteString("-- composer.json --\n{\"autoload\": {\"psr-4\": {\"Vault\\\\\": \"src/\"}}}\n")
			}
			return b.String(), at
		}},
	)
}
