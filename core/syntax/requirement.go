package syntax

import (
	"regexp"
	"strings"
)

var requirement = regexp.MustCompile(`^\s*([A-Za-z0-9][A-Za-z0-9._-]*)(?:\[[^\]]*\])?\s*([^;#]*)`)

// Require adds the package that a requirement of Python names, with the versions as
// written: "lots[all] (>=1); python_version < '3'" is lots at >=1.
func Require(into map[string]string, line string) {
	if m := requirement.FindStringSubmatch(line); m != nil {
		into[m[1]] = strings.Trim(strings.TrimSpace(m[2]), "()")
	}
}
