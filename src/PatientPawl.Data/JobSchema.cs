using System.Text.Json.Nodes;
using System.Text.Json.Schema;

namespace PatientPawl.Data;

/// <summary>The JSON Schema of the job file, made from the very types that are stored.</summary>
public static class JobSchema
{
    public static JsonObject Make()
    {
        var schema = PawlJson.Options.GetJsonSchemaAsNode(typeof(Shape), new JsonSchemaExporterOptions
        {
            TreatNullObliviousAsNonNullable = true,
            // Quantities have their own converter: on paper they are plain numbers, the unit standing in the name.
            TransformSchemaNode = (context, node) => PawlJson.IsQuantity(context.TypeInfo.Type)
                ? new JsonObject { ["type"] = Nullable.GetUnderlyingType(context.TypeInfo.Type) is null ? "number" : new JsonArray("number", "null") }
                : node,
        }).AsObject();
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", $"Patient Pawl job file, version {EventStore.FormatVersion}");
        var properties = schema["properties"]!.AsObject();
        properties["format"] = new JsonObject { ["const"] = JobFiles.Format };
        properties["formatVersion"] = new JsonObject { ["type"] = "integer", ["minimum"] = EventStore.OldestFormat, ["maximum"] = EventStore.FormatVersion };
        properties["events"]!.AsObject()["minItems"] = 1;
        properties["events"]!["items"]!["properties"]!.AsObject()["hash"] = new JsonObject { ["type"] = "string", ["pattern"] = "^[0-9a-f]{64}$" };
        return schema;
    }

    private sealed record Shape(string Format, int FormatVersion, Guid JobId, IReadOnlyList<ShapeEvent> Events, IReadOnlyList<Attachment>? Attachments = null);

    private sealed record ShapeEvent(StoredEvent Content, string Hash);
}
