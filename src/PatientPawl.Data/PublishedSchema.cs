using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using PatientPawl.Core.Practice;

namespace PatientPawl.Data;

/// <summary>JSON Schema of what is written in an open format, made from the very types that are stored.</summary>
public static class PublishedSchema
{
    /// <summary>Of a scenario.</summary>
    public static JsonObject Scenario() => Of(typeof(Scenario), "Patient Pawl scenario");

    internal static JsonObject Of(Type type, string title)
    {
        var schema = PawlJson.Options.GetJsonSchemaAsNode(type, new JsonSchemaExporterOptions
        {
            TreatNullObliviousAsNonNullable = true,
            // Quantities have their own converter: on paper they are plain numbers, the unit standing in the name.
            TransformSchemaNode = (context, node) => PawlJson.IsQuantity(context.TypeInfo.Type)
                ? new JsonObject
                {
                    ["type"] = Nullable.GetUnderlyingType(context.TypeInfo.Type) is null ? "number"
                    : new JsonArray("number", "null")
                }
                : node,
        }).AsObject();
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", title);
        return schema;
    }
}
