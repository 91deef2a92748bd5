using System.Text.Json.Nodes;
using System.Text.Json.Schema;

namespace PatientPawl.Data;

/// <summary>The JSON Schema of the job file, made from the very types that are stored.</summary>
public static class JobSchema
{
    public static JsonObject Make()
    {
        var content = PawlJson.Options.GetJsonSchemaAsNode(typeof(StoredEvent), new JsonSchemaExporterOptions
        {
            TreatNullObliviousAsNonNullable = true,
            // Quantities have their own converter: on paper they are plain numbers, the unit standing in the name.
            TransformSchemaNode = (context, node) => PawlJson.IsQuantity(context.TypeInfo.Type)
                ? new JsonObject { ["type"] = Nullable.GetUnderlyingType(context.TypeInfo.Type) is null ? "number" : new JsonArray("number", "null") }
                : node,
        });
        return new JsonObject
        {
            ["$schema"] = "https://json-schema.org/draft/2020-12/schema",
            ["title"] = "Patient Pawl job file, version 1",
            ["type"] = "object",
            ["required"] = new JsonArray("format", "formatVersion", "jobId", "events"),
            ["properties"] = new JsonObject
            {
                ["format"] = new JsonObject { ["const"] = "patient-pawl-job" },
                ["formatVersion"] = new JsonObject { ["const"] = EventStore.FormatVersion },
                ["jobId"] = new JsonObject { ["type"] = "string", ["format"] = "uuid" },
                ["events"] = new JsonObject
                {
                    ["type"] = "array",
                    ["minItems"] = 1,
                    ["items"] = new JsonObject
                    {
                        ["type"] = "object",
                        ["required"] = new JsonArray("content", "hash"),
                        ["properties"] = new JsonObject
                        {
                            ["content"] = content,
                            ["hash"] = new JsonObject { ["type"] = "string", ["pattern"] = "^[0-9a-f]{64}$" },
                        },
                    },
                },
            },
        };
    }
}
