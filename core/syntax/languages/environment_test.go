package languages_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestVariablesOfTheEnvironment(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want []string
	}{
		"a.ts":   {"const a = process.env.PORT ?? 1\nconst b = process.env['SCALE_URL'], c = import.meta.env.VITE_X\nconst d = env.NOT, e = process.env[name]\n", []string{"PORT 1", "SCALE_URL 2", "VITE_X 2"}},
		"a.go":   {"package a\nimport \"os\"\nvar a = os.Getenv(\"PORT\")\nvar b, _ = os.LookupEnv(\"HOME\")\nvar c = os.Getenv(a)\n", []string{"HOME 4", "PORT 3"}},
		"a.py":   {"import os\na = os.environ['PORT']\nb = os.getenv('HOME', '/')\nc = os.environ.get(\"X_1\")\nd = os.environ['not a name']\n", []string{"HOME 3", "PORT 2", "X_1 4"}},
		"A.java": {"class A { String a = System.getenv(\"PORT\"); }\n", []string{"PORT 1"}},
		"a.php":  {"<?php $a = getenv('PORT'); $b = $_ENV['HOME']; $c = env('APP_KEY', 1);\n", []string{"APP_KEY 1", "HOME 1", "PORT 1"}},
		"a.rb":   {"a = ENV['PORT']\nb = ENV.fetch('HOME') { 1 }\n", []string{"HOME 2", "PORT 1"}},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, m := range facts(name, c.text).Env {
				got = append(got, fmt.Sprintf("%s %d", m.Name, m.Line))
			}
			require.Equal(t, c.want, got)
		})
	}
}
