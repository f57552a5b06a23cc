using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

/// <summary>What kinds have in common that tell how linked files stand.</summary>
internal abstract class LinkStands : KindCheck
{
    protected abstract LinkState State { get; }

    protected abstract string Detail { get; }

    protected abstract Remedy Remedy { get; }

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Image is not { } image || frame.In.Facts.Of(image) != State) yield break;
        yield return On(image.Key, image.Name, Detail, 1) with { Places = [frame.Place] };
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) => [Remedy];
}
