using Formatum.Core.Checks;

namespace Formatum.Core.Fitting;

/// <summary>The ranges fitting settings must keep to.</summary>
public static class FitSettingsCheck
{
    public static void Check(FitSettings settings, FieldErrors errors, string prefix = "")
    {
        foreach (var setting in FitSettings.All) setting.Check(settings, errors, prefix);
    }
}
