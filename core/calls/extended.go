package calls

// extended is a function that looks like a member of a type, or of what that is
// built upon.
func (e *eval) extended(t *typ, name string) value {
	for _, s := range t.key.unit.files[0].world.extends[name] {
		of := e.typeOf(e.follow(s.file, s.shape.Node))
		if of == nil || of.kind != tNamed || of.key != t.key && !e.builtUpon(t.key, of.key, 0) {
			continue
		}
		q := s.shape.Name
		if s.shape.Owner != "" {
			q = s.shape.Owner + "." + q
		}
		if p, ok := s.file.unit.defs[q]; ok {
			return defined(s.file.unit, q, p)
		}
	}
	return nothing
}

// builtUpon reports whether one type is built upon another.
func (e *eval) builtUpon(k, base typeKey, depth int) bool {
	if e.steps++; e.steps >= maxSteps || depth > 12 {
		e.cut = true
		return false
	}
	for _, b := range k.unit.bases[k.name] {
		t := e.asType(e.follow(b.file, b.shape.Node))
		if t != nil && t.kind == tNamed && (t.key == base || e.builtUpon(t.key, base, depth+1)) {
			return true
		}
	}
	return false
}
