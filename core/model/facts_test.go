package model_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"math/rand/v2"
	"reflect"
	"strconv"
	"testing"

	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

// fill puts something into every field below v, so that a field which is
// forgotten on the way shows.
func fill(r *rand.Rand, v reflect.Value, texts ...string) {
	switch v.Kind() {
	case reflect.String:
		switch v.Interface().(type) {
		case model.LinkKind:
			v.Set(reflect.ValueOf([]model.LinkKind{model.LinkImport, model.LinkLazyImport, model.LinkReExport, model.LinkDeclared}[r.IntN(4)]))
		case model.DefinitionKind:
			v.Set(reflect.ValueOf([]model.DefinitionKind{model.DefType, model.DefOther, model.DefMethod}[r.IntN(3)]))
		default:
			v.SetString(texts[r.IntN(len(texts))] + strconv.Itoa(r.IntN(9)))
		}
	case reflect.Int, reflect.Int64:
		v.SetInt(r.Int64N(1<<40) + 1)
	case reflect.Uint8:
		v.SetUint(uint64(r.IntN(256)))
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 1+r.IntN(3), 4))
		for i := range v.Len() {
			fill(r, v.Index(i), texts...)
		}
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
		for i := range 1 + r.IntN(3) {
			x := reflect.New(v.Type().Elem()).Elem()
			fill(r, x, texts...)
			v.SetMapIndex(reflect.ValueOf("key"+strconv.Itoa(i)), x)
		}
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(r, v.Elem(), texts...)
	case reflect.Struct:
		for i := range v.NumField() {
			fill(r, v.Field(i), texts...)
		}
	default:
		panic("facts hold a " + v.Kind().String() + ", which this test does not fill")
	}
}

func TestFactsComeBackAsTheyWerePacked(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 200 {
		var f, back model.Facts
		fill(r, reflect.ValueOf(&f).Elem(), "lot", "größe", "\x00\xff", "a long text with a line\nin it")
		b, err := f.MarshalMsg(nil)
		require.NoError(t, err)
		rest, err := back.UnmarshalMsg(b)
		require.NoError(t, err)
		require.Empty(t, rest)
		require.Equal(t, f, back)
		for n := range len(b) {
			require.Error(t, func() error { _, err := new(model.Facts).UnmarshalMsg(b[:n]); return err }(), "a record cut off after %d bytes", n)
			if n > 200 {
				break
			}
		}
	}
	var empty, back model.Facts
	b, err := empty.MarshalMsg(nil)
	require.NoError(t, err)
	_, err = back.UnmarshalMsg(b)
	require.NoError(t, err)
	require.Equal(t, empty, back)
}

// TestEveryKindIsPacked goes by the source, so that a new kind can not be
// forgotten.
func TestEveryKindIsPacked(t *testing.T) {
	file, err := parser.ParseFile(token.NewFileSet(), "model.go", nil, 0)
	require.NoError(t, err)
	kinds := 0
	ast.Inspect(file, func(n ast.Node) bool {
		v, ok := n.(*ast.ValueSpec)
		if !ok || len(v.Values) != 1 {
			return true
		}
		id, ok := v.Type.(*ast.Ident)
		lit, isLit := v.Values[0].(*ast.BasicLit)
		if !ok || !isLit {
			return true
		}
		text, err := strconv.Unquote(lit.Value)
		require.NoError(t, err)
		f := model.Facts{}
		switch id.Name {
		case "LinkKind":
			f.Imports = []model.Import{{Kind: model.LinkKind(text)}}
		case "DefinitionKind":
			f.Definitions = []model.Definition{{Kind: model.DefinitionKind(text)}}
		default:
			return true
		}
		kinds++
		b, err := f.MarshalMsg(nil)
		require.NoError(t, err)
		var back model.Facts
		_, err = back.UnmarshalMsg(b)
		require.NoError(t, err)
		require.Equal(t, f, back, text)
		return true
	})
	require.Equal(t, 24, kinds)
}

func FuzzUnpackFacts(f *testing.F) {
	var whole model.Facts
	fill(rand.New(rand.NewPCG(9, 10)), reflect.ValueOf(&whole).Elem(), "lot")
	b, err := whole.MarshalMsg(nil)
	require.NoError(f, err)
	f.Add(b)
	f.Add([]byte{0xdc, 0, 37})
	f.Fuzz(func(t *testing.T, b []byte) {
		if len(b) > 1<<16 {
			return
		}
		var x model.Facts
		if _, err := x.UnmarshalMsg(b); err != nil {
			return
		}
		again, err := x.MarshalMsg(nil)
		require.NoError(t, err)
		var y model.Facts
		_, err = y.UnmarshalMsg(again)
		require.NoError(t, err)
		require.Equal(t, x, y)
	})
}
