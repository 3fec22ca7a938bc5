package patterns

import (
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
	"jantel/core/syntax"
	"jantel/core/weave"
)

// families are folders whose files nearly all build upon the same that stands
// outside, and which hardly anything names: what is built alike and is taken by
// its name is plugged in, whatever its folder is called.
func (c *context) families() *plugs {
	named := map[string]bool{}
	for _, l := range c.edges {
		if !model.Within(model.FolderOf(l.To), l.From) {
			named[l.To] = true
		}
	}
	in := map[string][]*model.File{}
	for _, f := range c.source {
		if d := model.FolderOf(f.Path); d != "." {
			in[d] = append(in[d], f)
		}
	}
	var single []*model.File // of languages in which a name is there once
	for _, f := range c.source {
		if f.Facts != nil && f.Facts.Starts == 0 && syntax.ProfileOf(f.Language).OneOfAName {
			single = append(single, f)
		}
	}
	out := &plugs{parts: map[string]bool{}}
	rooms := c.inRooms(named)
	for _, d := range c.folders {
		if showsOrTries(d.Path) {
			continue // each shows the same in another way
		}
		if parts := rooms[d.Path]; len(parts) > 0 {
			out.in = append(out.in, d)
			maps.Copy(out.parts, parts)
			continue
		}
		files := in[d.Path]
		if own := c.registering(d, files); len(own) > 0 {
			out.in = append(out.in, d)
			for _, f := range own {
				out.parts[f.Path] = true
			}
			continue
		}
		if parts := sameNamed(d, single); len(parts) > 0 {
			out.in = append(out.in, d)
			maps.Copy(out.parts, parts)
			continue
		}
		if own := c.alikeByName(files, named); len(own) > 0 {
			out.in = append(out.in, d)
			maps.Copy(out.parts, own)
			continue
		}
		heirs := directly(files)
		base, among := commonBase(files, heirs)
		if base == "" {
			heirs = heritage(files)
			base, among = commonBase(files, heirs)
		}
		if base == "" || len(files) < 3 || !c.defines(base) || !saysPlugIn(base) && c.loadedByFramework(files) {
			continue
		}
		known := 0
		var alike []*model.File
		for _, f := range files {
			if heirs[f][base] {
				alike = append(alike, f)
				if named[f.Path] {
					known++
				}
			}
		}
		// A base that stands among its heirs makes a family of any of them; it takes many, and
		// hardly one of them named, to be one that is plugged in.
		if 3*known > len(alike) || among && (20*known > len(alike) || len(alike) < leastBeside) {
			continue
		}
		out.in = append(out.in, d)
		for _, f := range alike {
			out.parts[f.Path] = true
		}
	}
	if len(out.in) == 0 {
		return nil
	}
	held := map[*model.Folder]int{}
	for _, d := range out.in {
		for part := range out.parts {
			if model.FolderOf(part) == d.Path {
				held[d]++
			}
		}
	}
	slices.SortStableFunc(out.in, func(a, b *model.Folder) int { return held[b] - held[a] }) // the first are named
	return out
}

// leastSame is how many parts have to define the same.
const leastSame = 4

// sameNamed are the parts of a folder, files or folders, that nearly all define
// functions of the same names in a language where a name at the top can be there
// once in a program: such parts are never linked together, but one of them is
// loaded. What starts by itself is a program of its own.
func sameNamed(d *model.Folder, single []*model.File) map[string]bool {
	by := map[string]map[string]bool{} // parts by the name of a function
	parts := map[string]bool{}
	for part, f := range partsIn(d, single) {
		if strings.Contains(f.Path[min(len(f.Path), len(part)+1):], "/") { // deeper than in a folder of its own
			continue
		}
		for i := range f.Facts.Definitions {
			if def := &f.Facts.Definitions[i]; def.Kind == model.DefFunction && def.Exported && def.Parent == "" {
				if by[def.Name] == nil {
					by[def.Name] = map[string]bool{}
				}
				by[def.Name][part], parts[part] = true, true
			}
		}
	}
	out := map[string]bool{}
	if ports(parts) {
		return out
	}
	for _, in := range by {
		if len(in) >= leastSame && 3*len(in) >= 2*len(parts) {
			maps.Copy(out, in)
		}
	}
	return out
}

// leastPorts is how many parts have to be named for a machine for all of them to be ports.
const leastPorts = 3

// ports reports whether parts that define the same are the same thing for one machine or
// system each: a build takes one of them, nothing is plugged in.
func ports(parts map[string]bool) bool {
	n := 0
	for part := range parts {
		if weave.System(naming.Words(naming.Stem(path.Base(part)))) != "" {
			n++
		}
	}
	return n >= leastPorts && 3*n >= len(parts)
}

// leastByName is how many modules of a folder have to define the same to be loaded by
// their names; fewer do where all call several functions after themselves.
const leastByName, leastByOwn = 10, 6

// alikeByName are the modules of a folder that nearly all define a function of the same
// name at their top, or several that are called after the module and are the same
// otherwise, and of which hardly one is named anywhere: they are loaded by the names
// of their files.
func (c *context) alikeByName(files []*model.File, named map[string]bool) map[string]bool {
	by, own := map[string]map[string]bool{}, map[string]map[string]bool{} // modules by the name of a function
	add := func(to map[string]map[string]bool, name, path string) {
		if to[name] == nil {
			to[name] = map[string]bool{}
		}
		to[name][path] = true
	}
	for _, f := range files {
		if f.Facts == nil || f.Facts.Starts > 0 || syntax.ProfileOf(f.Language).FolderPackages || syntax.ProfileOf(f.Language).PlainNames {
			continue
		}
		stem, spaces := strings.ToLower(naming.Stem(path.Base(f.Path))), reading.Namespaces(f.Facts)
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if d.Kind != model.DefFunction || d.Parent != "" && !spaces[d.Parent] || d.Name == "main" {
				continue
			}
			add(by, d.Name, f.Path)
			if name := strings.ToLower(d.Name); len(stem) > 1 && name != stem && strings.Contains(name, stem) {
				add(own, strings.Replace(name, stem, "*", 1), f.Path)
			}
		}
	}
	out := map[string]bool{}
	for _, in := range by {
		if len(in) >= leastByName && 5*len(in) >= 4*len(files) {
			maps.Copy(out, in)
		}
	}
	maps.DeleteFunc(own, func(_ string, in map[string]bool) bool { return len(in) < leastByOwn || 3*len(in) < 2*len(files) })
	if len(own) > 1 {
		for _, in := range own {
			maps.Copy(out, in)
		}
	}
	if 10*count(out, named) > len(out) {
		return nil
	}
	return out
}

// defines reports whether a judged file defines something of a name.
func (c *context) defines(name string) bool {
	if c.defined == nil {
		c.defined = map[string]bool{}
		for _, f := range c.survey.Files {
			if f.Facts == nil || !c.judged[f.Path] {
				continue
			}
			for i := range f.Facts.Definitions {
				full := f.Facts.Definitions[i].Name
				c.defined[full[strings.LastIndexAny(full, ".:\\")+1:]] = true
			}
		}
	}
	return c.defined[name]
}

// saysPlugIn reports whether a type is called for what is plugged in.
func saysPlugIn(name string) bool {
	name = strings.ToLower(strings.Join(naming.Words(name), ""))
	return strings.Contains(name, "plugin") || strings.Contains(name, "addon") || strings.HasSuffix(name, "extension")
}

// loadedByFramework reports whether most files are of a kind that frameworks find
// by themselves: that nothing names them says nothing.
func (c *context) loadedByFramework(files []*model.File) bool {
	n := 0
	for _, f := range files {
		switch c.roles[f.Path].Role {
		case model.RoleHandler, model.RoleModel, model.RoleSchema, model.RoleView, model.RoleMessage:
			n++
		}
	}
	return 2*n > len(files)
}

// rooms are the folders in a folder, by what they hold that builds upon something.
type rooms struct {
	all  map[string]bool
	upon map[string]map[string]bool // by a base, the folders
}

// inRooms are the folders, each of whose folders holds a part that builds upon the same, by
// the parts they hold: hardly one of them is named outside.
func (c *context) inRooms(named map[string]bool) map[string]map[string]bool {
	by := map[string]*rooms{}
	known := map[string]bool{}
	for _, f := range c.source {
		d := model.FolderOf(f.Path)
		if d == "." || model.FolderOf(d) == "." {
			continue
		}
		in := model.FolderOf(d)
		if by[in] == nil {
			by[in] = &rooms{map[string]bool{}, map[string]map[string]bool{}}
		}
		by[in].all[d] = true
		known[d] = known[d] || named[f.Path]
		for b := range basesOf(f) {
			if by[in].upon[b] == nil {
				by[in].upon[b] = map[string]bool{}
			}
			by[in].upon[b][d] = true
		}
	}
	out := map[string]map[string]bool{}
	for in, r := range by {
		if parts := c.alike(r); 5*count(parts, known) <= len(parts) {
			out[in] = parts
		}
	}
	return out
}

// alike are the folders that most build upon the same type of the codebase.
func (c *context) alike(r *rooms) (most map[string]bool) {
	if len(r.all) < leastBeside {
		return nil
	}
	by := "" // of two bases with as many folders the first by its name
	for b, of := range r.upon {
		if len(of) < leastBeside || 3*len(of) < 2*len(r.all) || len(of) < len(most) || len(of) == len(most) && b > by || !c.defines(b) {
			continue
		}
		most, by = of, b
	}
	return most
}

// count is how many of some are among others.
func count(some, others map[string]bool) (n int) {
	for x := range some {
		if others[x] {
			n++
		}
	}
	return n
}
