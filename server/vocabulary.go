package server

import (
	"maps"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/approach"
	"patientladder/core/fact"
	"patientladder/core/reason"
)

// aliasing is what huma's registry of schemas can do beside its interface.
type aliasing interface {
	RegisterTypeAlias(t, alias reflect.Type)
}

// vocabulary describes what is a closed set in the API's description: a fact's body,
// one of the types of core/fact, and the codes of reasons.
func vocabulary(r huma.Registry) {
	as := r.(aliasing)
	as.RegisterTypeAlias(reflect.TypeFor[fact.Body](), reflect.TypeFor[bodySchema]())
	as.RegisterTypeAlias(reflect.TypeFor[reason.Reason](), reflect.TypeFor[reasonSchema]())
}

// reasonSchema stands for reason.Reason where a schema is made.
type reasonSchema struct{}

// Schema is that of a reason with its codes as words.
func (reasonSchema) Schema(r huma.Registry) *huma.Schema {
	return named(r, "Reason", func() *huma.Schema {
		s := huma.SchemaFromType(r, reflect.TypeFor[reason.Reason]())
		s.Properties["code"].Enum = enum(reason.Codes)
		s.Properties["says"] = &huma.Schema{Type: "string", Description: "its sentence in the words of who asked"}
		s.Required = append(s.Required, "says")
		return s
	})
}

// named is a reference to a schema of a name, made once.
func named(r huma.Registry, name string, make func() *huma.Schema) *huma.Schema {
	if r.Map()[name] == nil {
		s := make()
		s.PrecomputeMessages()
		r.Map()[name] = s
	}
	return &huma.Schema{Ref: "#/components/schemas/" + name}
}

func enum[S ~string](list []S) []any {
	out := make([]any, len(list))
	for i, w := range list {
		out[i] = string(w)
	}
	return out
}

// bodySchema stands for fact.Body where a schema is made.
type bodySchema struct{}

// Schema tells the closed set as oneOf with a discriminator; each kind is a schema
// of its own, with its kind as a word of one.
func (bodySchema) Schema(r huma.Registry) *huma.Schema {
	return named(r, "FactBody", func() *huma.Schema {
		one := &huma.Schema{Discriminator: &huma.Discriminator{PropertyName: "kind", Mapping: map[string]string{}}}
		for _, t := range fact.Types() {
			kind := reflect.Zero(t).Interface().(fact.Body).Kind()
			ref := named(r, "Fact"+t.Name(), func() *huma.Schema {
				s := huma.SchemaFromType(r, t)
				fields := map[string]*huma.Schema{"kind": {Type: "string", Enum: enum([]fact.Kind{kind})}}
				maps.Copy(fields, s.Properties)
				s.Properties, s.Required = fields, append([]string{"kind"}, s.Required...)
				if kind == (fact.ApproachSet{}).Kind() {
					fields["question"].Enum, fields["school"].Enum = questions()
				}
				return s
			})
			one.OneOf = append(one.OneOf, ref)
			one.Discriminator.Mapping[string(kind)] = ref.Ref
		}
		return one
	})
}

// questions are those where teachers disagree, and their schools.
func questions() (asked, schools []any) {
	had := map[string]bool{}
	for _, row := range approach.Rows {
		asked = append(asked, string(row.Key))
		for _, s := range row.Schools {
			if !had[string(s.Key)] {
				had[string(s.Key)], schools = true, append(schools, string(s.Key))
			}
		}
	}
	return asked, schools
}
