namespace Formatum.Web.Desk;

/// <summary>A field for something about columns or wrap.</summary>
/// <param name="Name">By its name in the automation interface.</param>
/// <param name="Label">What people read.</param>
/// <param name="Value">As it is shown; null where the frames differ.</param>
public sealed record FlowField(string Name, string Label, string? Value)
{
    public string Id => "flow-" + Name.Replace('.', '-');
}
