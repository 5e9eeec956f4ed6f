package app_test

import (
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/app"
	"sectilis/core/document/card"
)

// open are the named string types that hold more than a list of words.
var open = map[reflect.Type]bool{
	reflect.TypeFor[card.FaceID](): true,
}

// Every named string type that goes over the API has its words in the vocabulary, so that
// the schema, and with it the client, knows them; what it lists is there once.
func TestTheVocabularyIsComplete(t *testing.T) {
	seen := map[reflect.Type]bool{}
	var look func(typ reflect.Type, at string)
	look = func(typ reflect.Type, at string) {
		if seen[typ] {
			return
		}
		seen[typ] = true
		switch typ.Kind() {
		case reflect.String:
			if strings.HasPrefix(typ.PkgPath(), "sectilis/") && !open[typ] {
				assert.Contains(t, app.Vocabulary, typ, "the words of %s, at %s", typ, at)
			}
		case reflect.Pointer, reflect.Slice, reflect.Array:
			look(typ.Elem(), at)
		case reflect.Map:
			look(typ.Key(), at)
			look(typ.Elem(), at)
		case reflect.Struct:
			for i := range typ.NumField() {
				if f := typ.Field(i); f.IsExported() && f.Tag.Get("json") != "-" {
					look(f.Type, at+"."+f.Name)
				}
			}
		}
	}
	for name, make := range app.Commands {
		look(reflect.TypeOf(make()), name)
	}
	for _, v := range []any{app.View{}, app.FoldView{}, app.LayoutView{}, app.CutterState{}, app.Job{}, app.Event{}, app.Sketch{}, app.Supply{}, app.Incoming{}} {
		look(reflect.TypeOf(v), reflect.TypeOf(v).Name())
	}
	for typ, words := range app.Vocabulary {
		assert.Equal(t, reflect.String, typ.Kind())
		assert.NotEmpty(t, words, typ)
		once := map[string]bool{}
		for _, w := range words {
			assert.False(t, once[w], "%s: %q", typ, w)
			once[w] = true
		}
	}
}
