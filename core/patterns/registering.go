package patterns

import (
	"bytes"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// registers are calls that hand something over to be found later: by that alone
// what they are called in tells that it is plugged in.
var registers = regexp.MustCompile(`(?i)(?:^|_|\b)register|Register(?:[A-Z_]|$)`)

// leastRegistering is how many files of a folder have to hand themselves over.
const leastRegistering = 4

// registering are the files of a folder that hand something over to functions of
// the codebase which stand outside the folder, where nearly all do: each plugs
// itself in, whatever it builds upon and whatever the folder is called.
func (c *context) registering(d *model.Folder, files []*model.File) (out []*model.File) {
	if len(files) < leastRegistering {
		return nil
	}
	for _, f := range files {
		if slices.ContainsFunc(handsOver(f), func(name string) bool {
			in := c.definedIn(name)
			return in != "" && !model.Within(d.Path, in)
		}) {
			out = append(out, f)
		}
	}
	if len(out) < leastRegistering || 2*len(out) < len(files) {
		return nil
	}
	return out
}

// handsOver are the functions by which a file hands something over, by their
// simple names.
func handsOver(f *model.File) (out []string) {
	if f.Facts == nil || !bytes.Contains(f.Facts.Body, []byte("egister")) {
		return nil // nearly no file does, and to unpack all costs
	}
	body, err := model.UnpackBody(f.Facts.Body)
	if err != nil {
		return nil
	}
	met := map[string]bool{}
	for _, c := range body.Calls {
		if c.Node < 0 || int(c.Node) >= len(body.Nodes) {
			continue
		}
		name := body.Name(&body.Nodes[c.Node])
		name = name[strings.LastIndexAny(name, " .:\\")+1:]
		if c.Kind == model.CallPlain && isRegistrar(name) && !met[name] {
			met[name] = true
			out = append(out, name)
		}
	}
	return out
}

// definedIn is a file that defines a function of a name, "" where none does.
func (c *context) definedIn(name string) string {
	if c.registrars == nil {
		c.registrars = map[string]string{}
		for _, f := range c.survey.Files {
			if f.Facts == nil || !c.judged[f.Path] {
				continue
			}
			for i := range f.Facts.Definitions {
				d := &f.Facts.Definitions[i]
				if (d.Kind == model.DefFunction || d.Kind == model.DefMethod) && isRegistrar(d.Name) && c.registrars[d.Name] == "" {
					c.registrars[d.Name] = f.Path
				}
			}
		}
	}
	return c.registrars[name]
}

// isRegistrar reports whether a function registers something, by its name. Few hold the
// word at all, which costs less to ask for.
func isRegistrar(name string) bool {
	return strings.Contains(strings.ToLower(name), "register") && registers.MatchString(name)
}
