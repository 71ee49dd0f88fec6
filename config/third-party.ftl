<#list dependencyMap as e><#assign p = e.getKey()/>${p.artifactId} ${p.version}: ${p.name}, <#list e.getValue() as l>${l}<#sep>; </#list>, ${p.url!}
</#list>
B612 and B612 Mono (fonts): The B612 Project Authors, SIL Open Font License 1.1, http://scripts.sil.org/OFL
