package server

import (
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"patientladder/core/fact"
)

// aliasing is what huma's registry of schemas can do beside its interface.
type aliasing interface {
	RegisterTypeAlias(t, alias reflect.Type)
}

// union describes fact.Body in the API's description: one of a closed set of types,
// told apart by its kind.
func union(r huma.Registry) {
	r.(aliasing).RegisterTypeAlias(reflect.TypeFor[fact.Body](), reflect.TypeFor[bodySchema]())
}

// bodySchema stands for fact.Body where a schema is made.
type bodySchema struct{}

// Schema tells the closed set as oneOf with a discriminator; each kind is a schema
// of its own, with its kind as a word of one.
func (bodySchema) Schema(r huma.Registry) *huma.Schema {
	const refs = "#/components/schemas/"
	one := &huma.Schema{Discriminator: &huma.Discriminator{PropertyName: "kind", Mapping: map[string]string{}}}
	for _, t := range fact.Types() {
		kind := string(reflect.Zero(t).Interface().(fact.Body).Kind())
		name := "Fact" + t.Name()
		if r.Map()[name] == nil {
			s := *huma.SchemaFromType(r, t)
			fields := map[string]*huma.Schema{"kind": {Type: "string", Enum: []any{kind}}}
			for k, v := range s.Properties {
				fields[k] = v
			}
			s.Properties, s.Required = fields, append([]string{"kind"}, s.Required...)
			s.PrecomputeMessages()
			r.Map()[name] = &s
		}
		one.OneOf = append(one.OneOf, &huma.Schema{Ref: refs + name})
		one.Discriminator.Mapping[kind] = refs + name
	}
	body := "FactBody"
	if r.Map()[body] == nil {
		one.PrecomputeMessages()
		r.Map()[body] = one
	}
	return &huma.Schema{Ref: refs + body}
}
